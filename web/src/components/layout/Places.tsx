import { NavLink } from "react-router";
import { PLACES, placesFor } from "../../state/domain/addresses";
import { classes } from "../base/classes";
import { useSession } from "../base/session";
import { Octagon } from "../marks/Octagon";
import styles from "./shell.module.css";
import { useUrgentCount } from "./useUrgentCount";

/** The places that stand by themselves: a pine line under where one is, the octagon on Day. */
export function Places({ label }: { label: string }) {
  const session = useSession();
  return (
    <nav className={styles.places} aria-label={label}>
      {placesFor(session.role).map((place) => (
        <NavLink key={place.path} to={place.path} className={classes(styles.place)}>
          {place.name}
          {place.path === PLACES[0].path ? <Urgent /> : null}
        </NavLink>
      ))}
    </nav>
  );
}

function Urgent() {
  const count = useUrgentCount();
  if (!count) return null;
  return (
    <span className={styles["urgent-count"]}>
      <Octagon size={20} />
      {count}
      <span className="only-read-aloud"> cannot wait</span>
    </span>
  );
}
