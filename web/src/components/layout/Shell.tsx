import { createContext, type ReactNode, useContext, useLayoutEffect, useState } from "react";
import { Link, useLocation } from "react-router";
import { PLACES, stepsOf } from "../../state/domain/addresses";
import { furthestStep, reachedStep } from "../../state/screen/furthest_step";
import { classes } from "../base/classes";
import { useSession } from "../base/session";
import { Mark } from "../marks/Mark";
import Menu, { Leave, ThemeSwitch } from "./Menu";
import { Places } from "./Places";
import styles from "./shell.module.css";

interface Head {
  /** Whom it is about. */
  who?: ReactNode;
  /** The screen whose path is shown. */
  screen?: string;
  saved?: ReactNode;
  urgent?: ReactNode;
}

const Fill = createContext<(head: Head) => void>(() => {});

/**
 * One bar around every place. It stays while a place comes, loads or goes, so that a key pressed meanwhile
 * meets what it was meant for.
 */
export function Frame({ children }: { children: ReactNode }) {
  const session = useSession();
  const [{ who, screen, saved, urgent }, fill] = useState<Head>({});
  const { pathname } = useLocation();
  // Going anywhere closes it.
  const [opened, setOpened] = useState<string | null>(null);
  const more = opened === pathname;
  const step = pathname.split("/")[3];
  return (
    <div className={styles.shell} data-step={step} data-path={Boolean(screen) || undefined}>
      <header className={styles.topbar}>
        <Link className={styles.brand} to={PLACES[0].path} aria-label="North Stride">
          <Mark />
        </Link>
        <button
          type="button"
          className={styles.more}
          aria-label="Places and more"
          title={`${session.name}, ${session.role}`}
          aria-expanded={more}
          aria-controls="places-and-more"
          data-open={more || undefined}
          onClick={() => setOpened(more ? null : pathname)}
        >
          <Mark />
        </button>
        <div className={styles.wide}>
          <Places label="Places" />
        </div>
        <div className={styles.who}>{who}</div>
        {screen ? <Path screen={screen} open={more} /> : null}
        {saved}
        {screen ? null : <Own />}
      </header>
      {more ? <Menu {...(screen ? { screen } : {})} onGone={() => setOpened(null)} /> : null}
      <div className={styles.urgent}>{urgent}</div>
      <Fill value={fill}>{children}</Fill>
      {screen ? null : (
        <div className={styles.foot}>
          <Places label="Places at the foot" />
        </div>
      )}
    </div>
  );
}

/** A place, and what it says of itself in the frame. */
export function Shell({ children, who, screen, saved, urgent }: Head & { children: ReactNode }) {
  const fill = useContext(Fill);
  useLayoutEffect(() => {
    fill({ who, saved, urgent, ...(screen ? { screen } : {}) });
  });
  return <main>{children}</main>;
}

/** Who is signed in, and what they set for themselves, where there is room for it. */
function Own() {
  const session = useSession();
  return (
    <div className={classes(styles.wide, styles.self)}>
      <span className="muted" title={`${session.name}, ${session.role}`}>
        {session.name} · {session.clinic}
      </span>
      <ThemeSwitch />
      <Leave />
    </div>
  );
}

/** The path of the open screen: an ink block where one is, solid where one has been, dotted ahead. */
function Path({ screen, open }: { screen: string; open: boolean }) {
  const here = useLocation().pathname;
  const steps = stepsOf(screen);
  const at = steps.findIndex((step) => here.startsWith(step.to));
  reachedStep(screen, at);
  return (
    <nav className={styles.path} aria-label="Path of this screen" data-open={open || undefined}>
      {steps.map((step, place) => (
        <Link
          key={step.to}
          to={step.to}
          className={styles.step}
          data-been={place <= furthestStep(screen) || undefined}
          aria-current={place === at ? "step" : undefined}
        >
          {step.name}
        </Link>
      ))}
    </nav>
  );
}
