import type { Compared } from "../../api/catalogue";
import type { Difference } from "../../api/screens";
import { FIRST } from "../../state/device/lanes";
import { differenceWords, errorWords, findingSide } from "../../state/domain/wording";

const WIDTH = 110;
const HALF = WIDTH / 2;

/** A bar growing towards the lane of the side with the finding, over a band of the smallest real change. */
export function DifferenceBar({ measure, found }: { measure: Compared; found: Difference }) {
  const within = found.verdict === "within_error";
  const side = findingSide(measure, found.difference);
  const scale = Math.max(2.2 * found.mdc95, Math.abs(found.difference)) || 1;
  const band = (found.mdc95 / scale) * HALF;
  const bar = (Math.abs(found.difference) / scale) * HALF;
  const fill = within ? "var(--edge)" : side === "left" ? "var(--lake)" : "var(--clay)";
  return (
    <div className="difference">
      <svg
        width={WIDTH}
        height="13"
        viewBox={`0 0 ${WIDTH} 13`}
        aria-hidden="true"
        focusable="false"
      >
        <rect x={HALF - band} width={2 * band} height="13" fill="var(--error-band)" />
        <rect x={side === FIRST ? HALF - bar : HALF} y="3" width={bar} height="7" fill={fill} />
        <rect x={HALF - 1} width="2" height="13" fill="var(--ink)" />
      </svg>
      <div className="muted">
        {differenceWords(measure, found)}
        {within ? "" : `, ${errorWords(measure, found)}`}
      </div>
    </div>
  );
}
