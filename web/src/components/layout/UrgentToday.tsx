import { Link } from "react-router";
import type { Catalogue } from "../../api/catalogue";
import type { DueAction } from "../../api/day";
import { stepTo } from "../../state/domain/addresses";
import { stepWords } from "../../state/domain/arranging";
import { actionOf, foundWords, nameOf } from "../../state/domain/day";
import { toDo, urgencyName } from "../../state/domain/wording";
import Arrange from "../controls/Arrange";
import { Octagon } from "../marks/Octagon";
import { BarSide } from "./UrgentBars";
import styles from "./urgent_today.module.css";

interface Props {
  catalogue: Catalogue;
  onChanged: () => void;
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
