import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { dayQuery } from "../../api/day";
import { chooseTheme, theme } from "../../state/device/preferences";
import { aloud, sayAloud } from "../../state/device/speech";
import { stepTo } from "../../state/domain/addresses";
import { doneWords, goesOn } from "../../state/domain/day";
import { part } from "../base/part";
import { useLeave, useSession } from "../base/session";
import { useStore } from "../base/useStore";
import { Places } from "./Places";
import styles from "./shell.module.css";

const ALSO_OPEN = 5;

interface Props {
  /** The screen one is in: it is not "also" open. */
  screen?: string;
  onGone: () => void;
}

/** Behind the mark: the places, what else is open, and what one sets for oneself. */
export default function Menu({ screen, onGone }: Props) {
  const session = useSession();
  const day = useQuery({ ...dayQuery, refetchInterval: false });
  const others = (day.data?.open ?? []).filter((each) => each.id !== screen).slice(0, ALSO_OPEN);
  return (
    // Going anywhere closes it: every link in it is one.
    // biome-ignore lint/a11y/noStaticElementInteractions: the links inside take the keys
    // biome-ignore lint/a11y/useKeyWithClickEvents: the links inside take the keys
    <div
      className={styles.menu}
      id="places-and-more"
      onClick={(event) => {
        if (event.target instanceof Element && event.target.closest("a")) onGone();
      }}
    >
      <Places label="All places" />
      {others.length > 0 ? (
        <nav className={styles.others} aria-label="Also open">
          <span className="muted">Also open</span>
          {others.map((each) => (
            <Link key={each.id} to={stepTo(each.id, goesOn(each).step)}>
              <strong>{each.athlete.name}</strong>
              <span className="muted">{doneWords(each)}</span>
            </Link>
          ))}
        </nav>
      ) : null}
      <section className={styles.own} aria-label="Yours">
        <span className="muted">
          {session.name} · {session.clinic}
        </span>
        {screen ? <SpeechSwitch /> : null}
        <PairSwitch screen={screen ?? null} />
        <ThemeSwitch />
        <Leave />
      </section>
    </div>
  );
}

const { Place: PairDialog } = part<{ screen: string | null; onClose: () => void }>(
  () => import("../controls/PairDialog"),
  () => null,
);

function PairSwitch({ screen }: { screen: string | null }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className={styles.place} onClick={() => setOpen(true)}>
        Second device
      </button>
      {open ? <PairDialog screen={screen} onClose={() => setOpen(false)} /> : null}
    </>
  );
}

export function ThemeSwitch() {
  const now = useStore(theme);
  return (
    <button
      type="button"
      className={styles.place}
      onClick={() => chooseTheme(now === "dim" ? "light" : "dim")}
    >
      {now === "dim" ? "Light" : "Dim"}
    </button>
  );
}

function SpeechSwitch() {
  const on = useStore(aloud);
  return (
    <button
      type="button"
      className={styles.place}
      title="The bench says what it asks, side first"
      onClick={() => sayAloud(!on)}
    >
      {on ? "Silent" : "Aloud"}
    </button>
  );
}

export function Leave() {
  const leave = useLeave();
  return (
    <button type="button" className={styles.place} onClick={leave}>
      Sign out
    </button>
  );
}
