import type { Flag } from "../../api/screens";

const STROKES: Record<Flag["strength"], number> = { possible: 1, likely: 2, strong: 3 };

/** One, two or three upright strokes, with the word unless it stands elsewhere. */
export function Tally({ strength, word = true }: { strength: Flag["strength"]; word?: boolean }) {
  return (
    <span className="tally">
      <svg width="21" height="15" viewBox="0 0 21 15" aria-hidden="true" focusable="false">
        {[1, 2, 3].map((stroke) => (
          <rect
            key={stroke}
            x={(stroke - 1) * 8}
            width="4"
            height="15"
            fill={stroke <= STROKES[strength] ? "var(--ink)" : "var(--hairline)"}
          />
        ))}
      </svg>
      {word ? <strong>{strength}</strong> : <span className="only-read-aloud">{strength}</span>}
    </span>
  );
}

/** Ruled down: one low flat stroke. */
export function RuledDown() {
  return (
    <span className="tally">
      <svg width="18" height="15" viewBox="0 0 18 15" aria-hidden="true" focusable="false">
        <rect y="11" width="18" height="4" fill="var(--edge)" />
      </svg>
      ruled down
    </span>
  );
}
