import type { Rungs as Shown } from "../../state/domain/rungs";

const GAP = 8;
const RUNGS = [1, 2, 3];
const MOST = RUNGS.length;

/** A floor line, rungs up for a positive and down for a negative: solid is least, broken is up to. */
export function Rungs({ shown }: { shown: readonly Shown[] }) {
  const floor = GAP * MOST + 4;
  const height = 2 * floor;
  return (
    <svg
      className="rungs"
      width="34"
      height={height}
      viewBox={`0 0 34 ${height}`}
      aria-hidden="true"
      focusable="false"
    >
      <path d={`M17 2V${height - 2}`} stroke="var(--hairline)" strokeWidth="1.5" />
      {[...RUNGS.map((rung) => -rung), ...RUNGS].map((step) => (
        <path
          key={step}
          d={`M7 ${floor + step * GAP}H27`}
          stroke="var(--hairline)"
          strokeWidth="1.5"
        />
      ))}
      <path d={`M1 ${floor}H33`} stroke="var(--ink)" strokeWidth="2" />
      {shown.flatMap(({ up, solid, reached }) =>
        RUNGS.slice(0, reached).map((rung) => (
          <path
            key={`${up} ${rung}`}
            d={`M7 ${floor + (up ? -1 : 1) * rung * GAP}H27`}
            stroke="var(--ink)"
            strokeWidth="4"
            strokeDasharray={rung <= solid ? undefined : "5 2.5"}
          />
        )),
      )}
    </svg>
  );
}
