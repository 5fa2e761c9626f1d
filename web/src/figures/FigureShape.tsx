import type { Point } from "./camera";
import type { Shape } from "./draw";
import { PATH_SCALE } from "./outline";
import { arcPath, arrowHead, sectorPath, starPath } from "./paths";

const TO_SHEET = `scale(${1 / PATH_SCALE})`;

const points = (line: readonly Point[]): string => line.map(({ x, y }) => `${x},${y}`).join(" ");

/** One shape of a figure as SVG. */
export function ShapeView({ shape }: { shape: Shape }) {
  switch (shape.kind) {
    case "fill":
      return (
        <>
          {shape.edge ? (
            <path className={`figure-edge ${shape.tone}`} d={shape.d} transform={TO_SHEET} />
          ) : null}
          <path className={`figure-${shape.tone}`} d={shape.d} transform={TO_SHEET} />
        </>
      );
    case "band":
      return (
        <line className="figure-band" x1={shape.x1} y1={shape.y1} x2={shape.x2} y2={shape.y2} />
      );
    case "level":
    case "arm":
    case "length":
      return (
        <line
          className={`figure-${shape.kind}${"open" in shape && shape.open ? " open" : ""}`}
          x1={shape.from.x}
          y1={shape.from.y}
          x2={shape.to.x}
          y2={shape.to.y}
        />
      );
    case "sector":
      return <path className="figure-usual" d={sectorPath(shape)} />;
    case "arc":
      return <path className="figure-arc" d={arcPath(shape)} />;
    case "axis":
      return <circle className="figure-axis" cx={shape.at.x} cy={shape.at.y} r="4" />;
    case "hand":
      return <HandView shape={shape} />;
  }
}

/** Twice: once wide in the sheet's colour, so that it shows on dark limbs too. */
function HandView({ shape }: { shape: Extract<Shape, { kind: "hand" }> }) {
  return (
    <>
      <HandLines shape={shape} className="figure-hand-halo" />
      <HandLines
        shape={shape}
        className={shape.does === "self" ? "figure-hand own" : "figure-hand"}
      />
    </>
  );
}

interface HandLinesProps {
  shape: Extract<Shape, { kind: "hand" }>;
  className: string;
}

function HandLines({ shape, className }: HandLinesProps) {
  const { at, radius, does, arrow, both, behind } = shape;
  const ring = does === "hold" || does === "feel";
  return (
    <g className={className}>
      {ring ? (
        <circle cx={at.x} cy={at.y} r={radius} strokeDasharray={behind ? "3 3" : undefined} />
      ) : null}
      {does === "feel" ? <circle className="dot" cx={at.x} cy={at.y} r={radius / 3} /> : null}
      {does === "tap" ? <path className="dot" d={starPath(at, radius)} /> : null}
      {arrow.length > 1 ? (
        <>
          <polyline points={points(arrow)} />
          <path className="dot" d={arrowHead(arrow)} />
          {both ? <path className="dot" d={arrowHead([...arrow].reverse())} /> : null}
        </>
      ) : null}
    </g>
  );
}
