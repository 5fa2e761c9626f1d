import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { catalogueQuery } from "../../api/catalogue";
import { dayQuery } from "../../api/day";
import { PlaceAway } from "../../components/layout/Away";
import { Shell } from "../../components/layout/Shell";
import { UrgentToday } from "../../components/layout/UrgentToday";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { bookedToday, cannotWait, firstWords, longDay, runningOut } from "../../state/domain/day";
import styles from "./day.module.css";
import { OpenScreens } from "./OpenScreens";
import { RunsOut } from "./RunsOut";
import { Today } from "./Today";

/** What today needs: what cannot wait, what is open, who comes, and what runs out. */
export default function DayPlace() {
  const day = useQuery(dayQuery);
  const catalogue = useQuery(catalogueQuery);
  const error = day.error ?? catalogue.error;
  if (error && !(day.data && catalogue.data)) {
    return (
      <Shell>
        <div className="p-4">
          <ProblemNote error={error} />
        </div>
      </Shell>
    );
  }
  if (!day.data || !catalogue.data) return <PlaceAway waiting={day.failureCount > 0} />;
  const [found, known] = [day.data, catalogue.data];
  const urgent = cannotWait(found);
  const today = bookedToday(found);
  const running = runningOut(found, known);
  const parts = { day: found, catalogue: known, onChanged: () => void day.refetch() };
  return (
    <Shell>
      <div className={styles.day}>
        <h1 className={styles.title}>
          {longDay(found.day)} <span>{firstWords(found, running)}</span>
          {urgent.length > 0 ? (
            <small>Nobody has {urgent.length === 1 ? "it" : "them"} in hand yet.</small>
          ) : null}
        </h1>
        <Stale failed={day.failureCount > 0} reading={found.being_read} />
        <UrgentToday {...parts} urgent={urgent} />
        <div className={styles.columns}>
          <div>
            <Today {...parts} today={today} />
            <OpenScreens {...parts} first={today.length === 0} />
            <Unseen {...parts} />
          </div>
          <RunsOut {...parts} running={running} />
        </div>
      </div>
    </Shell>
  );
}

/** What is not known yet is said, and never counted as nothing. */
function Stale({ failed, reading }: { failed: boolean; reading: number }) {
  if (failed) {
    return (
      <p className="fault" role="status">
        The server does not answer. This is the day as it was last known.
      </p>
    );
  }
  if (reading === 0) return null;
  return (
    <p className="muted" role="status">
      {reading === 1 ? "One open screen is" : `${reading} open screens are`} being read: what{" "}
      {reading === 1 ? "it says" : "they say"} may still change.
    </p>
  );
}

function Unseen({
  day,
}: {
  day: { unseen: { total: number; athletes: { id: string; name: string }[] } };
}) {
  const { total, athletes } = day.unseen;
  if (total === 0) return null;
  const more = total - athletes.length;
  return (
    <p className={styles.unseen}>
      Not screened for a year, or never:{" "}
      {athletes.map((athlete, place) => (
        <span key={athlete.id}>
          {place > 0 ? ", " : ""}
          <Link to={`/people?athlete=${athlete.id}`}>{athlete.name}</Link>
        </span>
      ))}
      {more > 0 ? `, and ${more} more` : ""}.
    </p>
  );
}
