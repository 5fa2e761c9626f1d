import { type ReactNode, useState } from "react";
import { Link, NavLink, useLocation } from "react-router";
import { PLACES, placesFor, stepsOf } from "../state/addresses";
import { chooseTheme, theme } from "../state/preferences";
import { aloud, sayAloud } from "../state/speech";
import { classes } from "./classes";
import { Mark } from "./Mark";
import styles from "./Shell.module.css";
import { useLeave, useSession } from "./session";
import { useStore } from "./useStore";

interface Props {
  /** Whom it is about. */
  who?: ReactNode;
  /** The screen whose path is shown. */
  screen?: string;
  saved?: ReactNode;
  urgent?: ReactNode;
  children: ReactNode;
}

/** The frame of every place: one bar, what is urgent, the place itself. */
export function Shell({ who, screen, saved, urgent, children }: Props) {
  const [more, setMore] = useState(false);
  const step = useLocation().pathname.split("/")[3];
  return (
    <div className={styles.shell} data-step={step}>
      <header className={styles.topbar}>
        <Link className={styles.brand} to={PLACES[0].path} aria-label="North Stride">
          <Mark />
        </Link>
        <button
          type="button"
          className={styles.more}
          aria-label="Places and more"
          aria-expanded={more}
          onClick={() => setMore(!more)}
        >
          <Mark />
        </button>
        <div className={styles.rest} data-open={more || undefined}>
          <Places />
        </div>
        <div className={styles.who}>{who}</div>
        {screen ? <Path screen={screen} open={more} /> : null}
        {saved}
        <div className={styles.rest} data-open={more || undefined} data-last>
          {screen ? <SpeechSwitch /> : null}
          <ThemeSwitch />
          <Leave />
        </div>
      </header>
      <div className={styles.urgent}>{urgent}</div>
      <main>{children}</main>
    </div>
  );
}

/** The places that stand by themselves: a pine line under where one is. */
function Places() {
  const session = useSession();
  return (
    <nav className={styles.places} aria-label="Places">
      {placesFor(session.role).map((place) => (
        <NavLink key={place.path} to={place.path} className={classes(styles.place)}>
          {place.name}
        </NavLink>
      ))}
    </nav>
  );
}

/** The path of the open screen: an ink block where one is, every step can be entered. */
function Path({ screen, open }: { screen: string; open: boolean }) {
  const here = useLocation().pathname;
  return (
    <nav className={styles.path} aria-label="Path of this screen" data-open={open || undefined}>
      {stepsOf(screen).map((step) => (
        <Link
          key={step.to}
          to={step.to}
          className={styles.step}
          aria-current={here.startsWith(step.to) ? "step" : undefined}
        >
          {step.name}
        </Link>
      ))}
    </nav>
  );
}

function ThemeSwitch() {
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

function Leave() {
  const session = useSession();
  const leave = useLeave();
  return (
    <button
      type="button"
      className={styles.place}
      onClick={leave}
      title={`${session.name}, ${session.role}`}
    >
      Sign out
    </button>
  );
}
