import { Link } from "react-router";
import { useStore } from "../../components/useStore";
import { stepTo } from "../../state/addresses";
import type { Bench } from "../../state/bench";
import type { Fields } from "../../state/fields";
import styles from "./bench.module.css";
import { inPositions, laneDone, type Stop } from "./stops";

interface Props {
  bench: Bench;
  stops: Stop[];
  current: string | null;
  screen: string;
}

/** Positions in order; each stop with two half discs that fill. */
export function Rail({ bench, stops, current, screen }: Props) {
  const { fields, waiting } = useStore(bench.state);
  const known = withWaiting(fields, waiting);
  return (
    <nav className="rail" aria-label="Route">
      {inPositions(stops.map((stop) => stop.test)).map((position) => {
        const done = position.stops.filter(
          ({ test }) => laneDone(known, test.code, "left") && laneDone(known, test.code, "right"),
        );
        return (
          <section key={position.name}>
            <h2 className={styles["rail-position"]}>
              <span>{position.name}</span>
              <span className="muted">
                {done.length} of {position.stops.length}
              </span>
            </h2>
            {position.stops.map(({ test }) => (
              <Link
                key={test.code}
                className="rail-line"
                aria-current={test.code === current}
                to={stepTo(screen, "bench", test.code)}
                replace
              >
                <StopMark
                  left={laneDone(known, test.code, "left")}
                  right={laneDone(known, test.code, "right")}
                />
                <span className="flex-fill">{test.name}</span>
              </Link>
            ))}
          </section>
        );
      })}
    </nav>
  );
}

function withWaiting(fields: Fields, waiting: ReadonlyMap<string, unknown>): Fields {
  const known = new Map(fields);
  for (const [key, value] of waiting) {
    if (value === null) known.delete(key);
    else known.set(key, { value, by: null, at: null });
  }
  return known;
}

function StopMark({ left, right }: { left: boolean; right: boolean }) {
  const says = `left ${left ? "done" : "open"}, right ${right ? "done" : "open"}`;
  return (
    <svg width="20" height="18" viewBox="0 0 20 18" role="img" aria-label={says}>
      <path
        d="M9 1 A8 8 0 0 0 9 17 Z"
        fill={left ? "var(--lake)" : "none"}
        stroke="var(--lake)"
        strokeWidth="1.5"
      />
      <path
        d="M11 1 A8 8 0 0 1 11 17 Z"
        fill={right ? "var(--clay)" : "none"}
        stroke="var(--clay)"
        strokeWidth="1.5"
      />
    </svg>
  );
}
