import { Link } from "react-router";
import type { DueAction } from "../../api/day";
import { SideMark } from "../../components/marks/SideMark";
import { stepTo } from "../../state/domain/addresses";
import { nameOf } from "../../state/domain/day";
import { isUrgent } from "../../state/domain/urgent";
import { BeginFollowUp } from "./BeginFollowUp";
import styles from "./day.module.css";
import type { DayParts } from "./parts";

/** Who is booked for today, by the clock. The first one is what acts next. */
export function Today({ catalogue, today }: DayParts & { today: DueAction[] }) {
  if (today.length === 0) return null;
  return (
    <section aria-label="Today">
      <h2 className={styles.heading}>Today</h2>
      {today.map((action, place) => {
        const { standing, screen, athlete } = action;
        const elsewhere = action.urgency === "refer" || isUrgent(action);
        return (
          <div key={`${screen} ${standing.action} ${standing.side}`} className={styles.line}>
            <span className={styles.time}>{standing.arranged?.at_time ?? "today"}</span>
            <div>
              <strong>{athlete.name}</strong>{" "}
              {standing.side ? <SideMark side={standing.side} /> : null}
              <div className="muted">
                {nameOf(action, catalogue)}
                {standing.arranged?.whom ? ` · ${standing.arranged.whom}` : ""}
              </div>
            </div>
            {elsewhere ? (
              <Link className="btn btn-quiet" to={stepTo(screen, "reading")}>
                Reading
              </Link>
            ) : (
              <BeginFollowUp athlete={athlete} variant={place === 0 ? "primary" : "quiet"} />
            )}
          </div>
        );
      })}
    </section>
  );
}
