import type { Catalogue } from "../../api/catalogue";
import type { Reading, Screen } from "../../api/screens";
import { actionWords, toDo, urgencyName } from "../../state/wording";
import { Arrange, arrangementOf } from "./Arrange";

interface Props {
  reading: Reading;
  screen: Screen;
  catalogue: Catalogue;
  onChanged: () => void;
}

/** Emergency and same-day actions stay at the top until somebody has seen to them. */
export function UrgentBars({ reading, screen, catalogue, onChanged }: Props) {
  const urgent = reading.actions.filter(
    (action) =>
      (action.urgency === "emergency" || action.urgency === "same_day") &&
      !arrangementOf(screen, action),
  );
  return (
    <>
      {urgent.map((action) => (
        <div key={`${action.code} ${action.side}`} className="urgent-bar" role="alert">
          <Octagon />
          <strong>{urgencyName(action.urgency)}</strong>
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

/** A shape no side uses. */
function Octagon() {
  return (
    <svg width="26" height="26" viewBox="0 0 26 26" aria-hidden="true" focusable="false">
      <path d="M8 1 H18 L25 8 V18 L18 25 H8 L1 18 V8 Z" fill="currentColor" />
    </svg>
  );
}
