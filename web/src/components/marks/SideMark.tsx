import type { Side } from "../../api/client";
import { SIDE_LETTER } from "../../state/domain/wording";

/** Side four ways at once: place is the lane's, here letter, colour and half disc. */
export function SideMark({ side, large = false }: { side: Side; large?: boolean }) {
  const size = large ? 26 : 14;
  const disc = <HalfDisc side={side} size={size} />;
  const letter = <span style={{ fontSize: large ? "2.1rem" : "1rem" }}>{SIDE_LETTER[side]}</span>;
  return (
    <span className={`side-letter ${side}`} role="img" aria-label={side}>
      {side === "left" ? disc : letter}
      {side === "left" ? letter : disc}
    </span>
  );
}

export function HalfDisc({ side, size }: { side: Side; size: number }) {
  const path = side === "left" ? "M8 0 A8 8 0 0 0 8 16 Z" : "M0 0 A8 8 0 0 1 0 16 Z";
  return (
    <svg width={size / 2} height={size} viewBox="0 0 8 16" aria-hidden="true" focusable="false">
      <path d={path} fill="currentColor" />
    </svg>
  );
}
