import type { Catalogue } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Reading, Screen } from "../../api/screens";
import { type Standing, standingOf, stepWords } from "../../state/domain/arranging";
import { unarranged } from "../../state/domain/urgent";
import { actionWords, questionWords, toDo, urgencyName } from "../../state/domain/wording";
import { part } from "../base/part";
import type { ArrangeProps } from "../controls/Arrange";
import { Octagon } from "../marks/Octagon";
import { HalfDisc } from "../marks/SideMark";

const { Place: Arrange } = part<ArrangeProps>(
  () => import("../controls/Arrange"),
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
          {action.side ? <BarSide side={action.side} /> : null}
          <span className="flex-fill">
            {toDo(action.urgency)} {actionWords(action, catalogue)}
            <Left standing={standingOf(screen, action)} />
          </span>
          <Arrange
            screen={screen.record.id}
            action={action}
            name={actionWords(action, catalogue)}
            onChanged={onChanged}
            variant="urgent"
          />
        </div>
      ))}
    </>
  );
}

/** The side in the bar's own colour: word and half disc. */
export function BarSide({ side }: { side: Side }) {
  return (
    <span className="bar-side">
      {side === "left" ? <HalfDisc side={side} size={16} /> : null}
      {side}
      {side === "right" ? <HalfDisc side={side} size={16} /> : null}
    </span>
  );
}

/** Why it is not arranged, where somebody signed without. */
function Left({ standing }: { standing: Standing | undefined }) {
  if (!standing?.left) return null;
  return <> {stepWords("left", standing.left)}</>;
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
