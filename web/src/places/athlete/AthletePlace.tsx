import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { type Athlete, athleteQuery } from "../../api/athletes";
import { catalogueQuery } from "../../api/catalogue";
import { courseQuery } from "../../api/course";
import { useToday } from "../../components/base/session";
import { PlaceAway } from "../../components/layout/Away";
import { PlaceProblem } from "../../components/layout/PlaceProblem";
import { Shell } from "../../components/layout/Shell";
import { UrgentToday } from "../../components/layout/UrgentToday";
import { athleteTo } from "../../state/domain/addresses";
import { pairsOf } from "../../state/domain/course";
import { cannotWait, dayOf, runningOut } from "../../state/domain/day";
import { ageOn } from "../../state/domain/wording";
import { AthleteHead } from "./AthleteHead";
import { AthleteSide } from "./AthleteSide";
import styles from "./athlete.module.css";
import { FlagsNow } from "./FlagsNow";
import { Lines } from "./Lines";
import { ReturnBoard } from "./ReturnBoard";

/** One person over time: flags now, what moved on each side, what is to be done, what was before. */
export default function AthletePlace() {
  const { athlete: id = "" } = useParams();
  const today = useToday();
  const athlete = useQuery(athleteQuery(id));
  const course = useQuery({ ...courseQuery(id), refetchOnMount: "always" });
  const catalogue = useQuery(catalogueQuery);
  const error = athlete.error ?? course.error ?? catalogue.error;
  if (error && !(athlete.data && course.data && catalogue.data)) {
    return <PlaceProblem error={error} />;
  }
  if (!athlete.data || !course.data || !catalogue.data) {
    return <PlaceAway waiting={athlete.failureCount + course.failureCount > 0} />;
  }
  const [whom, over, known] = [athlete.data, course.data, catalogue.data];
  const changed = () => void course.refetch();
  const day = dayOf(today, over.actions);
  const parts = { athlete: whom, course: over, catalogue: known, today, onChanged: changed };
  return (
    <Shell
      who={<Whose athlete={whom} today={today} />}
      urgent={
        <UrgentToday day={day} catalogue={known} onChanged={changed} urgent={cannotWait(day)} />
      }
    >
      <div className={styles.athlete}>
        <AthleteHead {...parts} running={runningOut(day, known)} />
        <div className={styles.columns}>
          <div className={styles.ledger}>
            <FlagsNow {...parts} />
            <ReturnBoard {...parts} />
            <Lines {...parts} pairs={pairsOf(over, known)} />
          </div>
          <AthleteSide {...parts} running={runningOut(day, known)} />
        </div>
      </div>
    </Shell>
  );
}

function Whose({ athlete, today }: { athlete: Athlete; today: string }) {
  const facts = [athlete.ref, ageOn(athlete.birth_date, today), athlete.sex, athlete.sport];
  return (
    <>
      <a className="whose" href={athleteTo(athlete.id)} aria-current="page">
        {athlete.name}
      </a>
      <span className="muted facts">
        {facts.filter((part) => part !== null && part !== "").join(" · ")}
      </span>
    </>
  );
}
