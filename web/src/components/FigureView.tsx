import type { Step, Test } from "../api/catalogue";
import type { Side } from "../api/client";
import { FIGURES, type FigureKind, HANDS } from "../figures";
import { arcPath, type Point, SHEET, type Shape, sectorPath } from "../figures/geometry";

interface Props {
  test: Test;
  step: Step;
  side: Side;
  numbers: Readonly<Record<string, number | null>>;
  hands?: boolean;
}

/** The step's drawing with the measured angles in it. The right lane mirrors the left. */
export function FigureView({ test, step, side, numbers, hands = false }: Props) {
  const figure = step.figure;
  const draw = figure ? FIGURES[figure.kind] : undefined;
  if (!figure || !draw) return null;
  const joints: Record<string, number | null> = {};
  const usual: Record<string, [number, number] | null> = {};
  for (const [joint, code] of Object.entries(figure.joints ?? {})) {
    joints[joint] = numbers[code] ?? null;
    usual[joint] = (test.measures.find((m) => m.code === code)?.usual as [number, number]) ?? null;
  }
  const mirror = side === "right" ? `translate(${SHEET.width} 0) scale(-1 1)` : undefined;
  const places = hands ? handPlaces(figure.kind, figure.hands ?? []) : [];
  return (
    <svg
      className={`figure ${side}`}
      viewBox={`0 0 ${SHEET.width} ${SHEET.height}`}
      role="img"
      aria-label={`${step.title}, ${side}${spoken(numbers, figure.joints ?? {})}`}
    >
      <g transform={mirror}>
        {draw(joints, usual).map((shape, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: shapes are drawn in a fixed order
          <ShapeView key={index} shape={shape} />
        ))}
        {places.map((at) => (
          <ShapeView key={`${at.x} ${at.y}`} shape={{ kind: "hand", at }} />
        ))}
      </g>
    </svg>
  );
}

const handPlaces = (kind: FigureKind, hands: string[]): Point[] =>
  hands.map((hand) => HANDS[kind][hand]).filter((at): at is Point => at !== undefined);

function spoken(numbers: Props["numbers"], joints: Record<string, string>): string {
  const said = Object.values(joints)
    .map((code) => numbers[code])
    .filter((number) => number !== null && number !== undefined);
  return said.length ? `: ${said.map((number) => `${number}°`).join(", ")}` : "";
}

const LIMB = { body: "var(--body-near)", behind: "var(--body-far)" };

function ShapeView({ shape }: { shape: Shape }) {
  switch (shape.kind) {
    case "limb":
      return (
        <line
          x1={shape.from.x}
          y1={shape.from.y}
          x2={shape.to.x}
          y2={shape.to.y}
          stroke={LIMB[shape.tone]}
          strokeWidth={shape.width}
          strokeLinecap="round"
        />
      );
    case "line":
      return (
        <line
          className={`figure-${shape.tone}`}
          x1={shape.from.x}
          y1={shape.from.y}
          x2={shape.to.x}
          y2={shape.to.y}
        />
      );
    case "sector":
      return (
        <path
          className="figure-usual"
          d={sectorPath(shape.at, shape.radius, shape.from, shape.to)}
        />
      );
    case "arc":
      return (
        <path className="figure-arc" d={arcPath(shape.at, shape.radius, shape.from, shape.to)} />
      );
    case "head":
      return <circle cx={shape.at.x} cy={shape.at.y} r={shape.radius} fill="var(--body-near)" />;
    case "axis":
      return <circle className="figure-axis" cx={shape.at.x} cy={shape.at.y} r="4" />;
    case "hand":
      return <circle className="figure-hand" cx={shape.at.x} cy={shape.at.y} r="10" />;
  }
}
