import type { Catalogue } from "../api/catalogue";
import type { Reading, Screen } from "../api/screens";
import { unarranged } from "../state/urgent";
import { actionWords, questionWords, toDo, urgencyName } from "../state/wording";
import { part } from "./part";

const { Place: Arrange } = part(
  () => import("./Arrange"),
  () => null,
);

interface Props {
  reading: Reading;
  screen: Screen;
  catalogue: Catalogue;
  onChanged: () => void;
}

/** Emergency and same-day actions stay at the top until somebody has seen to them. */
export function UrgentBars({ reading, screen, catalogue, onChanged }: Props) {
  const urgent = unarranged(reading, screen);
  return (
    <>
      {urgent.map((action, place) => (
        <div key={`${action.code} ${action.side}`} className="urgent-bar" role="alert">
          <Octagon />
          <strong>
            {urgencyName(action.urgency)}
            {urgent.length > 1 ? ` ${place + 1} of ${urgent.length}` : ""}
          </strong>
          <span className="flex-fill">
            {toDo(action.urgency)} {actionWords(action, catalogue)}
            {action.side ? `, ${action.side}` : ""}
          </span>
          <Arrange screen={screen} action={action} onChanged={onChanged} />
        </div>
      ))}
    </>
  );
}

/** Danger that was told and is not read yet: the server is away, and it must not be lost from sight. */
export function UnreadDanger({
  items,
  catalogue,
}: {
  items: readonly string[];
  catalogue: Catalogue;
}) {
  return (
    <div className="urgent-bar" role="alert">
      <Octagon />
      <strong>Answered yes</strong>
      <span className="flex-fill">
        {items.map((item) => questionWords(catalogue, item)).join(" ")} Not read yet: your local
        protocol comes first.
      </span>
    </div>
  );
}

/** A shape no side uses. */
function Octagon() {
  return (
    <svg width="26" height="26" viewBox="0 0 26 26" aria-hidden="true" focusable="false">
      <path d="M8 1 H18 L25 8 V18 L18 25 H8 L1 18 V8 Z" fill="currentColor" />
    </svg>
  );
}
