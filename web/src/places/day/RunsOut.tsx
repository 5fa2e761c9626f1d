import { Link } from "react-router";
import { classes } from "../../components/base/classes";
import Arrange from "../../components/controls/Arrange";
import { SideMark } from "../../components/marks/SideMark";
import { stepTo } from "../../state/domain/addresses";
import { actionOf, nameOf, type Running, stripDays } from "../../state/domain/day";
import { isUrgent } from "../../state/domain/urgent";
import { BeginFollowUp } from "./BeginFollowUp";
import styles from "./day.module.css";
import type { DayParts } from "./parts";
import { Strip } from "./Strip";

/** What opens and runs out over three weeks, soonest first: state in words on the strip. */
export function RunsOut({ day, catalogue, running, onChanged }: DayParts & { running: Running[] }) {
  return (
    <section aria-label="Runs out, soonest first">
      <div className={classes(styles.run, styles.days)}>
        <h2 className={styles.heading}>Runs out, soonest first</h2>
        <div className={styles.calendar} aria-hidden="true">
          {stripDays(day.day).map((each) => (
            <span
              key={each.day}
              data-free={each.free || undefined}
              data-today={each.today || undefined}
            >
              <span>{each.letter}</span>
              <b>{each.number}</b>
            </span>
          ))}
        </div>
      </div>
      {running.length === 0 ? (
        <p className="muted">
          No second look and no referral has days that are open, near or past.
        </p>
      ) : null}
      {running.map((each) => (
        <Run
          key={`${each.action.screen} ${each.action.standing.action} ${each.action.standing.side}`}
          {...{ each, day, catalogue, onChanged }}
        />
      ))}
      {day.older > 0 ? (
        <p className="muted">
          {day.older} more lie further back than half a year: see the athletes' own pages.
        </p>
      ) : null}
      {running.length > 0 ? <Legend /> : null}
    </section>
  );
}

function Run({ each, catalogue, onChanged }: DayParts & { each: Running }) {
  const { action } = each;
  const { standing, screen, athlete } = action;
  const name = nameOf(action, catalogue);
  const looksAgain = each.kind === "again" && !isUrgent(action);
  return (
    <div className={styles.run}>
      <span className={styles.side}>
        {standing.side ? <SideMark side={standing.side} /> : <span aria-hidden="true">–</span>}
      </span>
      <div className={styles.whose}>
        <Link to={stepTo(screen, "reading")}>{athlete.name}</Link>
        <div className="muted">{name}</div>
      </div>
      <Strip running={each} />
      <span className={styles.acts}>
        {looksAgain && each.due ? <BeginFollowUp athlete={athlete} variant="quiet" /> : null}
        <Arrange
          screen={screen}
          action={actionOf(action)}
          also={each.also.map(actionOf)}
          name={name}
          booked={standing.arranged !== null}
          onChanged={onChanged}
        />
      </span>
    </div>
  );
}

function Legend() {
  return (
    <p className={styles.legend}>
      <span>
        <i className={styles["key-again"]} /> again between these days
      </span>
      <span>
        <i className={styles["key-until"]} /> refer before this day is over
      </span>
      <span>
        <i className={styles.tick}>✓</i> booked
      </span>
    </p>
  );
}
