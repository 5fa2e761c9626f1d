import type { Side } from "../../api/client";
import { type AmendedDifference, CAUSES, stateWords } from "../../state/domain/amended";
import styles from "./reading.module.css";

/** What a flag was before, where an amendment or newer rules changed it. */
export function Amended({
  made,
  code,
  side,
}: {
  made: readonly AmendedDifference[];
  code: string;
  side: Side | null;
}) {
  return made
    .filter((item) => item.what === "flags" && item.code === code && item.side === side)
    .map((item) => (
      <div key={item.cause} className={styles.made}>
        {item.before ? `was ${stateWords(item.before)}` : "was not there"}
        {item.after ? "" : ", is gone"} <span className="muted">{CAUSES[item.cause]}</span>
      </div>
    ));
}
