import type { Side } from "../../api/client";
import type { Reading } from "../../api/screens";
import { notExaminedWhy } from "../../state/domain/wording";

/** What the purpose and the story call for and nothing speaks about, of one side or of none. */
export function NotExamined({ reading, side }: { reading: Reading; side: Side | null }) {
  const missing = (reading.coverage.unexamined ?? []).filter((item) => item.side === side);
  return missing.map((item) => (
    <div key={item.structure} className="not-examined">
      {item.name}
      {item.why === "not_recorded" ? (
        ""
      ) : (
        <span className="muted"> {notExaminedWhy(item.why)}</span>
      )}
    </div>
  ));
}
