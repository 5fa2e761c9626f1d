import type { Test } from "../../api/catalogue";

type Position = Test["position"];

// Head, then trunk and limbs as one stroke; the couch is the ground.
const DRAWN: Record<Position, { head: [number, number]; d: string; couch?: string }> = {
  standing: { head: [22, 6], d: "M22 12V24M22 24L18 38M22 24L26 38M22 14L17 24M22 14L27 24" },
  sitting: { head: [15, 7], d: "M15 13V25H28V37M15 15L20 23", couch: "M6 28H27" },
  supine: { head: [6, 25], d: "M12 26H40M20 25L26 28", couch: "M2 31H43" },
  side_lying: { head: [6, 23], d: "M12 24L24 25L33 21L40 26M24 25L40 28", couch: "M2 31H43" },
  prone: { head: [6, 26], d: "M12 27H30L38 27L38 17", couch: "M2 31H43" },
};

/** How the athlete is placed, small: the word stands beside it. */
export function PositionMark({ position }: { position: Position }) {
  const { head, d, couch } = DRAWN[position];
  return (
    <svg width="45" height="40" viewBox="0 0 45 40" aria-hidden="true" focusable="false">
      {couch ? <path d={couch} stroke="var(--couch)" strokeWidth="4" /> : null}
      <circle cx={head[0]} cy={head[1]} r="4.2" fill="var(--body-near)" />
      <path
        d={d}
        fill="none"
        stroke="var(--body-near)"
        strokeWidth="4.4"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </svg>
  );
}
