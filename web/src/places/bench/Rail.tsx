import { useState } from "react";
import { Link } from "react-router";
import type { Side } from "../../api/client";
import type { Screen } from "../../api/screens";
import { classes } from "../../components/base/classes";
import { useStore } from "../../components/base/useStore";
import { FIRST, LANES, SECOND } from "../../state/device/lanes";
import type { Fields } from "../../state/domain/fields";
import type { Bench } from "../../state/screen/bench";
import { initials, others, othersAt } from "../../state/screen/others";
import { minutesWords } from "../../state/screen/route";
import layout from "./layout.module.css";
import { benchAt, inPositions, isFilled, laneShare, progress, type Stop } from "./stops";

interface Props {
  bench: Bench;
  stops: Stop[];
  current: Stop | null;
  screen: Screen;
}

/** Positions in order; each stop with two half discs that fill. */
export function Rail({ bench, stops, current, screen }: Props) {
  const { fields, waiting } = useStore(bench.state);
  const here = othersAt(useStore(others), screen.record.id);
  const [open, setOpen] = useState(false);
  const known = withWaiting(fields, waiting);
  const share = ({ test }: Stop, side: Side) => laneShare(known, test, screen.schools, side);
  const walked = progress(stops, share);
  return (
    <nav className={classes("rail", layout.rail)} aria-label="Route" data-open={open || undefined}>
      <button
        type="button"
        className={layout["rail-open"]}
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        All stops
      </button>
      {stops.length > 0 ? (
        <p className={layout["rail-progress"]}>
          {walked.done} of {stops.length}
          {walked.seconds > 0 ? `, ${minutesWords(walked.seconds)} left` : ", all done"}
        </p>
      ) : null}
      {inPositions(stops).map((position) => {
        const done = position.stops.filter((stop) => isFilled(stop, share));
        return (
          <section
            key={position.name}
            data-here={(current && position.stops.includes(current)) || undefined}
          >
            <h2 className={layout["rail-position"]}>
              <span>{position.name}</span>
              <span className="muted">
                {done.length} of {position.stops.length}
              </span>
            </h2>
            {position.stops.map((stop, place) => (
              <Link
                key={stop.test.code}
                className="rail-line"
                aria-current={stop === current}
                {...distance(place - (current ? position.stops.indexOf(current) : -1))}
                to={benchAt(screen.record.id, stop)}
                replace
                onClick={() => setOpen(false)}
              >
                <StopMark share={(side) => share(stop, side)} />
                <span className={classes("flex-fill", layout["stop-name"])}>{stop.test.name}</span>
                {here
                  .filter((other) => other.test === stop.test.code)
                  .map((other) => (
                    <span key={other.device} className="initials" title={`${other.name} is here`}>
                      {initials(other.name)}
                    </span>
                  ))}
              </Link>
            ))}
          </section>
        );
      })}
    </nav>
  );
}

/** How far a bead is from where one is: narrow strips show only the nearest. */
function distance(steps: number) {
  const away = Math.abs(steps);
  return { "data-away": away > 1 || undefined, "data-far": away > 4 || undefined };
}

function withWaiting(fields: Fields, waiting: ReadonlyMap<string, unknown>): Fields {
  const known = new Map(fields);
  for (const [key, value] of waiting) {
    if (value === null) known.delete(key);
    else known.set(key, { value, by: null, at: null });
  }
  return known;
}

const SHARES: Readonly<Record<number, string>> = { 0: "open", 1: "done" };
const INK = { left: "var(--lake)", right: "var(--clay)" } as const;

/** Two half discs that fill from below by the share that is answered. */
function StopMark({ share }: { share: (side: Side) => number }) {
  const says = (side: Side) => SHARES[share(side)] ?? "in part";
  return (
    <svg
      width="20"
      height="18"
      viewBox="0 0 20 18"
      role="img"
      aria-label={LANES.map((side) => `${side} ${says(side)}`).join(", ")}
    >
      <HalfDisc d="M9 1A8 8 0 0 0 9 17Z" colour={INK[FIRST]} share={share(FIRST)} />
      <HalfDisc d="M11 1A8 8 0 0 1 11 17Z" colour={INK[SECOND]} share={share(SECOND)} />
    </svg>
  );
}

function HalfDisc({ d, colour, share }: { d: string; colour: string; share: number }) {
  return (
    <>
      <path
        d={d}
        fill={colour}
        style={{ clipPath: `inset(${((1 - share) * 100).toFixed(0)}% 0 0 0)` }}
      />
      <path d={d} fill="none" stroke={colour} strokeWidth="1.5" />
    </>
  );
}
