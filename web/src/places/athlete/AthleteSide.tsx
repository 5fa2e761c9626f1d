import { Link } from "react-router";
import Arrange from "../../components/controls/Arrange";
import { DateFile } from "../../components/controls/DateFile";
import { TakeAlongButton } from "../../components/controls/TakeAlongButton";
import { Arranged } from "../../components/marks/Arranged";
import { AuditLink } from "../../components/marks/AuditLink";
import { SideMark } from "../../components/marks/SideMark";
import { stepTo } from "../../state/domain/addresses";
import { actionOf, hasDays, nameOf, type Running } from "../../state/domain/day";
import { dayWords, purposeName, urgencyName } from "../../state/domain/wording";
import styles from "./athlete.module.css";
import type { AthleteParts } from "./parts";

/** Next dates, what somebody has in hand, and the screens. */
export function AthleteSide(props: AthleteParts & { running: Running[] }) {
  const { athlete, course, running } = props;
  return (
    <aside className={styles.side} aria-label="Dates and screens">
      <h2>Next dates</h2>
      {running.length === 0 ? <p className="muted">None.</p> : null}
      {running.map((each) => (
        <NextDate
          key={`${each.action.screen} ${each.action.standing.action} ${each.action.standing.side}`}
          {...props}
          each={each}
        />
      ))}
      <h2>Screens</h2>
      {course.screens.length === 0 ? <p className="muted">None yet.</p> : null}
      <ul className="screens">
        {course.screens.map((screen) => (
          <li key={screen.id}>
            <Link to={stepTo(screen.id, screen.state === "open" ? "bench" : "reading")}>
              {dayWords(screen.date)}
            </Link>
            <span className="muted">
              {purposeName(screen.purpose)}
              {screen.state === "open" ? ", open" : ""}
            </span>
          </li>
        ))}
      </ul>
      <p className="mt-3">
        <TakeAlongButton whose={{ kind: "athlete", id: athlete.id }} called={athlete.name} />
      </p>
      <p>
        <Link to={`/people?athlete=${athlete.id}`}>Edit or archive in People</Link>{" "}
        <AuditLink noun="athlete" record={athlete.id} />
      </p>
    </aside>
  );
}

function NextDate({ each, catalogue, onChanged }: AthleteParts & { each: Running }) {
  const { action, also, words } = each;
  const { standing, screen } = action;
  const name = nameOf(action, catalogue);
  return (
    <div className={styles.date}>
      <strong>
        {urgencyName(action.urgency)}, {words}
      </strong>{" "}
      {standing.side ? <SideMark side={standing.side} /> : null}
      <div>{name}</div>
      <Arranged screen={screen} standing={standing} onChanged={onChanged} />
      <div>
        <Arrange
          screen={screen}
          action={actionOf(action)}
          also={also.map(actionOf)}
          name={name}
          booked={standing.arranged !== null}
          onChanged={onChanged}
        />{" "}
        {hasDays(action) ? (
          <DateFile screen={screen} action={standing.action} side={standing.side} name={name} />
        ) : null}
      </div>
    </div>
  );
}
