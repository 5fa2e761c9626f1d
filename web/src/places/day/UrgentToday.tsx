import { Link } from "react-router";
import type { DueAction } from "../../api/day";
import Arrange from "../../components/Arrange";
import { Octagon } from "../../components/Octagon";
import { BarSide } from "../../components/UrgentBars";
import { stepTo } from "../../state/addresses";
import { stepWords } from "../../state/arranging";
import { actionOf, foundWords, nameOf } from "../../state/day";
import { toDo, urgencyName } from "../../state/wording";
import styles from "./day.module.css";
import type { DayParts } from "./parts";

interface Props extends Pick<DayParts, "catalogue" | "onChanged"> {
  day: { day: string };
  urgent: DueAction[];
}

/** Red, first, and there until somebody has it in hand. */
export function UrgentToday({ day, catalogue, urgent, onChanged }: Props) {
  return urgent.map((action) => {
    const { standing, screen } = action;
    const name = nameOf(action, catalogue);
    return (
      <div
        key={`${screen} ${standing.action} ${standing.side}`}
        className={`urgent-bar ${styles.bar}`}
        role="alert"
      >
        <Octagon />
        <strong>{urgencyName(action.urgency)}</strong>
        <Link to={stepTo(screen, "reading")}>{action.athlete.name}</Link>
        {standing.side ? <BarSide side={standing.side} /> : null}
        <span className="flex-fill">
          {name}. {toDo(action.urgency)} <strong>{foundWords(action.found, day.day)}</strong>
          {standing.left ? <> {stepWords("left", standing.left)}</> : null}
        </span>
        <Arrange
          screen={screen}
          action={actionOf(action)}
          name={name}
          onChanged={onChanged}
          variant="urgent"
        />
      </div>
    );
  });
}
