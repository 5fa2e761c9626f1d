import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { useSession } from "../../components/base/session";
import { useStore } from "../../components/base/useStore";
import { chooseFirst, FIRST, LANES } from "../../state/device/lanes";
import { chooseLengthUnit, chooseTheme, lengthUnit, theme } from "../../state/device/preferences";
import { aloud, sayAloud } from "../../state/device/speech";
import { momentWords } from "../../state/domain/audit";
import { LENGTH_UNITS } from "../../state/domain/length";
import { sessionsQuery } from "./queries";
import styles from "./settings.module.css";

/** What belongs to this device and nobody else's. */
export function ThisDevice() {
  const now = useStore(theme);
  const unit = useStore(lengthUnit);
  const speaks = useStore(aloud);
  return (
    <section aria-label="This device">
      <h2>This device</h2>
      <Choice name="Room" why="Dim rests eyes beside a couch in the evening.">
        {(["light", "dim"] as const).map((each) => (
          <Plate key={each} on={now === each} does={() => chooseTheme(each)}>
            {each}
          </Plate>
        ))}
      </Choice>
      <Choice name="Lengths are typed and shown in" why="They are always kept in millimetres.">
        {LENGTH_UNITS.map((each) => (
          <Plate key={each} on={unit === each} does={() => chooseLengthUnit(each)}>
            {each}
          </Plate>
        ))}
      </Choice>
      <Choice
        name="Which lane stands on the left"
        why="The athlete's own left, or, for those who write facing the athlete, the right. It holds in every place; colours, letters and drawings stay with their side. What you typed is kept, and the page opens anew."
      >
        {[...LANES].sort().map((side) => (
          <Plate key={side} on={side === FIRST} does={() => chooseFirst(side)}>
            {side} lane
          </Plate>
        ))}
      </Choice>
      <Choice name="The bench asks" why="By a voice of this device; no name is ever spoken.">
        <Plate on={!speaks} does={() => sayAloud(false)}>
          silently
        </Plate>
        <Plate on={speaks} does={() => sayAloud(true)}>
          aloud
        </Plate>
      </Choice>
      <Devices />
    </section>
  );
}

/** Where one is signed in: a device that was taken along stands behind the one that took it. */
function Devices() {
  const zone = useSession().time_zone;
  const { data: sessions } = useQuery(sessionsQuery);
  if (!sessions) return null;
  return (
    <section className={styles.choice} aria-label="Signed in as you">
      <h3>Signed in as you</h3>
      <p className="muted">
        A device that came with a code is as old as the one that took it along, and is signed out
        with it.
      </p>
      <ul>
        {sessions.map(({ id, begun, last_used, came_with, here }) => (
          <li key={id}>
            <strong>{here ? "This device" : "Another device"}</strong>
            {came_with ? ", came with a code" : ""}, since {momentWords(begun, zone)}, last used{" "}
            {momentWords(last_used, zone)}
          </li>
        ))}
      </ul>
    </section>
  );
}

export function Choice({
  name,
  why,
  children,
}: {
  name: string;
  why: string;
  children: ReactNode;
}) {
  return (
    <fieldset className={styles.choice}>
      <legend>{name}</legend>
      <p className="muted">{why}</p>
      <div className="plates">{children}</div>
    </fieldset>
  );
}

interface PlateProps {
  on: boolean;
  does: () => void;
  disabled?: boolean;
  children: ReactNode;
}

export function Plate({ on, does, disabled = false, children }: PlateProps) {
  return (
    <button type="button" className="plate" aria-pressed={on} disabled={disabled} onClick={does}>
      {children}
    </button>
  );
}
