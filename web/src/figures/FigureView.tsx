import { useMemo } from "react";
import type { Step, Test } from "../api/catalogue";
import type { Side } from "../api/client";
import { drawn } from ".";
import { SHEET } from "./camera";
import { ShapeView } from "./FigureShape";

export interface FigureViewProps {
  test: Test;
  step: Step;
  side: Side;
  numbers: Readonly<Record<string, number | null>>;
  hands?: boolean;
}

/** The step's drawing with the measured angles in it. The right lane mirrors the left. */
export function FigureView({ test, step, side, numbers, hands = false }: FigureViewProps) {
  const { figure } = step;
  const moved = figure ? Object.values(figure.joints).flat() : [];
  const read = moved.map((code) => numbers[code] ?? null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the numbers it is moved by stand for all
  const panels = useMemo(
    () => (figure ? drawn(figure, test.measures, numbers, hands) : []),
    [figure, test, hands, ...read],
  );
  if (!figure) return null;
  const mirror = side === "right" ? `translate(${SHEET.width} 0) scale(-1 1)` : undefined;
  const said = read.filter((number) => number !== null);
  return (
    <svg
      className={`figure ${side}`}
      viewBox={`0 0 ${SHEET.width} ${SHEET.height}`}
      role="img"
      aria-label={`${step.title}, ${side}${said.length ? `: ${said.join(", ")}` : ""}`}
    >
      <g transform={mirror}>
        {panels.map((panel, place) => (
          <svg
            // biome-ignore lint/suspicious/noArrayIndexKey: a figure's panels stand in a fixed order
            key={place}
            x={panel.window[0]}
            width={panel.window[1] - panel.window[0]}
            height={SHEET.height}
            viewBox={`${panel.window[0]} 0 ${panel.window[1] - panel.window[0]} ${SHEET.height}`}
            role="presentation"
            // One that has the sheet to itself runs on to the edges of its lane.
            overflow={panels.length === 1 ? "visible" : "hidden"}
          >
            {panel.shapes.map((shape, index) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: shapes are drawn in a fixed order
              <ShapeView key={index} shape={shape} />
            ))}
          </svg>
        ))}
      </g>
    </svg>
  );
}
