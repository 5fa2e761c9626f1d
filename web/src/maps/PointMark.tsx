import styles from "./map.module.css";

const EIGHT_WAYS = [0, 45, 90, 135, 180, 225, 270, 315];
const FILLED: ReadonlySet<string> = new Set(["tender", "on", "absent"]);
const BROKEN: ReadonlySet<string> = new Set(["open", "sore", "unsure"]);
const RAYED: ReadonlySet<string> = new Set(["tender", "sore"]);

/**
 * Marks that part without colour: broken ring, ring with a stroke, solid with rays, broken with rays;
 * a triangle for less, a solid square with a cross for nothing there, a broken ring with a question.
 */
export function PointMark({ mark }: { mark: string }) {
  const drawn = {
    fill: FILLED.has(mark) ? "currentColor" : "var(--sheet)",
    stroke: "currentColor",
    strokeWidth: "2",
    strokeDasharray: BROKEN.has(mark) ? "3 2.6" : undefined,
  };
  return (
    <svg className={styles.mark} viewBox="-16 -16 32 32" aria-hidden="true" focusable="false">
      {mark === "less" ? (
        <path d="M-10 -8H10L0 9Z" strokeLinejoin="round" {...drawn} />
      ) : mark === "absent" ? (
        <rect x="-9" y="-9" width="18" height="18" {...drawn} />
      ) : (
        <circle r="8" {...drawn} />
      )}
      {mark === "clear" || mark === "less" ? (
        <path
          d={mark === "clear" ? "M-4 0H4" : "M-3 -3H3"}
          stroke="currentColor"
          strokeWidth="2.4"
        />
      ) : null}
      {mark === "absent" ? (
        <path d="M-5 -5L5 5M5 -5L-5 5" stroke="var(--sheet)" strokeWidth="2.6" />
      ) : null}
      {mark === "open" ? <circle r="1.4" fill="currentColor" /> : null}
      {mark === "unsure" ? (
        <path
          d="M-3 -2A3 3 0 1 1 0 1.5V3M0 5.2V6"
          fill="none"
          stroke="currentColor"
          strokeWidth="2"
        />
      ) : null}
      {mark === "tender" ? <circle r="2.6" fill="var(--sheet)" /> : null}
      {RAYED.has(mark)
        ? EIGHT_WAYS.map((turn) => (
            <path
              key={turn}
              d="M0 -10.5V-14.5"
              transform={`rotate(${turn})`}
              stroke="currentColor"
              strokeWidth="2.4"
            />
          ))
        : null}
    </svg>
  );
}
