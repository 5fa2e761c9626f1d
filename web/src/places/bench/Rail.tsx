import { useState } from "react";
import { Link } from "react-router";
import type { Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Screen } from "../../api/screens";
import { classes } from "../../components/classes";
import { useStore } from "../../components/useStore";
import { stepTo } from "../../state/addresses";
import type { Bench } from "../../state/bench";
import type { Fields } from "../../state/fields";
import layout from "./layout.module.css";
import { inPositions, laneShare, type Stop } from "./stops";

interface Props {
  bench: Bench;
  stops: Stop[];
  current: string | null;
  screen: Screen;
}

/** Positions in order; each stop with two half discs that fill. */
export function Rail({ bench, stops, current, screen }: Props) {
  const { fields, waiting } = useStore(bench.state);
  const [open, setOpen] = useState(false);
  const known = withWaiting(fields, waiting);
  const share = (test: Test, side: Side) => laneShare(known, test, screen.schools, side);
  const isCurrent = ({ test }: Stop) => test.code === current;
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
      {inPositions(stops.map((stop) => stop.test)).map((position) => {
        const done = position.stops.filter(
          ({ test }) => share(test, "left") === 1 && share(test, "right") === 1,
        );
        return (
          <section
            key={position.name}
            data-here={position.stops.some(({ test }) => test.code === current) || undefined}
          >
            <h2 className={layout["rail-position"]}>
              <span>{position.name}</span>
              <span className="muted">
                {done.length} of {position.stops.length}
              </span>
            </h2>
            {position.stops.map(({ test }, place) => (
              <Link
                key={test.code}
                className="rail-line"
                aria-current={test.code === current}
                {...distance(place - position.stops.findIndex(isCurrent))}
                to={stepTo(screen.record.id, "bench", test.code)}
                replace
                onClick={() => setOpen(false)}
              >
                <StopMark left={share(test, "left")} right={share(test, "right")} />
                <span className={classes("flex-fill", layout["stop-name"])}>{test.name}</span>
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

/** Two half discs that fill from below by the share that is answered. */
function StopMark({ left, right }: { left: number; right: number }) {
  const says = (share: number) => (share === 0 ? "open" : share === 1 ? "done" : "in part");
  return (
    <svg
      width="20"
      height="18"
      viewBox="0 0 20 18"
      role="img"
      aria-label={`left ${says(left)}, right ${says(right)}`}
    >
      <HalfDisc d="M9 1A8 8 0 0 0 9 17Z" colour="var(--lake)" share={left} />
      <HalfDisc d="M11 1A8 8 0 0 1 11 17Z" colour="var(--clay)" share={right} />
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
