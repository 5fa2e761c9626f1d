import { Link } from "react-router";
import { classes } from "../../components/base/classes";
import { stepTo } from "../../state/domain/addresses";
import { doneWords, goesOn } from "../../state/domain/day";
import { dayWords, purposeName } from "../../state/domain/wording";
import styles from "./day.module.css";
import type { DayParts } from "./parts";

/** Screens nobody has signed yet: how far they are, who was last at them, and the way on. */
export function OpenScreens({ day, first }: DayParts & { first: boolean }) {
  const more = day.open_total - day.open.length;
  return (
    <section aria-label="Open on the couch">
      <h2 className={styles.heading}>Open on the couch</h2>
      {day.open.length === 0 ? <p className="muted">No screen is open.</p> : null}
      {day.open.map((screen, place) => {
        const { step, says } = goesOn(screen);
        const facts = [
          purposeName(screen.purpose),
          screen.date === day.day ? null : dayWords(screen.date),
          doneWords(screen),
          screen.last_by ? `${screen.last_by} was last` : null,
        ];
        return (
          <div key={screen.id} className={styles.line}>
            <div>
              <strong>{screen.athlete.name}</strong>
              <div className="muted">{facts.filter(Boolean).join(" · ")}</div>
            </div>
            <Link
              className={classes("btn", first && place === 0 ? "btn-primary" : "btn-quiet")}
              to={stepTo(screen.id, step)}
              aria-label={`${says}: ${screen.athlete.name}`}
            >
              {says}
            </Link>
          </div>
        );
      })}
      {more > 0 ? <p className="muted">And {more} more, found in People.</p> : null}
      {day.open.length === 0 ? (
        <Link className={classes("btn", first ? "btn-primary" : "btn-quiet")} to="/people">
          Choose an athlete
        </Link>
      ) : null}
    </section>
  );
}
