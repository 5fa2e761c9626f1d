// Figures for paper, drawn by the same code as on the screen. Runs by itself, with no page around it.
import "./paper_stubs";
import { renderToStaticMarkup } from "react-dom/server";
import type { Catalogue } from "../api/catalogue";
import type { Side } from "../api/client";
import type { Course } from "../api/course";
import type { Reading, Screen } from "../api/screens";
import { SHEET } from "../figures/camera";
import { FigureView } from "../figures/FigureView";
import { foundOn } from "../maps/found";
import { PointMark } from "../maps/PointMark";
import { boxOf } from "../maps/places";
import { drawn, linesOf, pairsOf } from "../state/domain/course";
import { kindOf } from "../state/domain/kinds";
import {
  figureNumbers,
  type Ground,
  ledgerRows,
  type Recorded,
  recordedWords,
} from "../state/domain/ledger";
import { spanOf } from "../state/domain/span";
import style from "../theme/figure.css?raw";
import { PaperLines, wordsOf } from "./PaperLines";
import { MARGIN, type Pin, placed, RADIUS } from "./Pins";
import { INK, onPaper } from "./palette";

const DRAWINGS = import.meta.glob<string>("../maps/drawings/*.svg", {
  query: "?raw",
  import: "default",
  eager: true,
});
// A mark's size in the units of a map.
const MARK = 7;

interface Drawn {
  svg: string;
  says: string;
  /** The number itself, in words; none where it is answered on a drawing. */
  value: string | null;
}

export interface FiguresOf {
  code: string;
  left: Drawn | null;
  right: Drawn | null;
}

type How = "mean" | "median";

/** A figure for each finding of each side, as far as there is one for it. */
function figures(
  catalogue: Catalogue,
  record: Screen["record"],
  reading: Reading,
  how: How,
): FiguresOf[] {
  const { flagged, cleared, recorded } = ledgerRows(reading, record, catalogue);
  return [...flagged, ...cleared].flatMap(({ code, ground }) => {
    if (!ground) return [];
    const onSide = (side: Side) => drawnFor(ground, side, recorded(ground.test.code, side), how);
    return [{ code, left: onSide("left"), right: onSide("right") }];
  });
}

function drawnFor({ test, step, measure, onMap }: Ground, side: Side, own: Recorded, how: How) {
  if (onMap) {
    const found = foundOn(onMap, side, own.values);
    return found && { svg: mapOf(found, side), says: found.says, value: null };
  }
  if (!step) return null;
  const numbers = figureNumbers(test, own, how);
  const value = measure ? (own.values.get(measure.code) ?? null) : null;
  const said = measure && value !== null ? kindOf(measure).said(value, measure, how) : null;
  const drawn = renderToStaticMarkup(
    <FigureView test={test} step={step} side={side} numbers={numbers} />,
  );
  return {
    svg: whole(drawn, side, SHEET.width, SHEET.height),
    says: `${test.name}, ${side}: ${recordedWords(test, own, how) ?? "nothing recorded"}`,
    value: said === null ? null : `${said} ${measure?.label.toLowerCase() ?? ""}`,
  };
}

function mapOf({ view, marks }: NonNullable<ReturnType<typeof foundOn>>, side: Side): string {
  const [width, height] = boxOf(view);
  const raw = DRAWINGS[`../maps/drawings/${view}.svg`] ?? "";
  const inside = raw.slice(raw.indexOf(">") + 1, raw.lastIndexOf("</svg>"));
  const mirror = side === "right" ? `translate(${width} 0) scale(-1 1)` : "";
  const drawn = marks.map(({ left, top, mark }) => {
    const [x, y] = [(left / 100) * width, (top / 100) * height];
    const shape = renderToStaticMarkup(<PointMark mark={mark} />);
    const at = `x="${x - MARK}" y="${y - MARK}" width="${2 * MARK}" height="${2 * MARK}"`;
    return shape.replace("<svg", `<svg ${at}`);
  });
  return whole(`<g transform="${mirror}">${inside}</g>${drawn.join("")}`, side, width, height);
}

const whole = (drawn: string, side: Side, width: number, height: number): string =>
  onPaper(
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" ` +
      `height="${height}"><style>${style}</style>${drawn}</svg>`,
  ).replaceAll(/currentcolor/gi, INK[side]);

export interface LineOf {
  /** Test, measure and key. */
  key: string;
  test: string;
  measure: string;
  which: string;
  svg: string;
  says: string;
}

/** A drawing for each measure that was taken more than once, what got worse first. */
function changeLines(catalogue: Catalogue, course: Course, today: string): LineOf[] {
  const days = spanOf(course, today);
  return drawn(pairsOf(course, catalogue)).map((pair) => ({
    key: pair.key,
    test: pair.test.code,
    measure: pair.measure.code,
    which: linesOf(pair)[0]?.key ?? "",
    svg: onPaper(
      renderToStaticMarkup(<PaperLines pair={pair} events={course.events} days={days} />),
    ),
    says: wordsOf({ pair }),
  }));
}

/** Legs with numbers; empty where nothing that stands out lies on them. */
function body(pins: readonly Pin[]): string {
  const [width, height] = boxOf("body_front");
  const found = placed(pins, width, height);
  if (found.length === 0) return "";
  const raw = DRAWINGS["../maps/drawings/body_front.svg"] ?? "";
  const inside = raw.slice(raw.indexOf(">") + 1, raw.lastIndexOf("</svg>"));
  const marks = found.map(
    ({ number, x, y, numberX, numberY }) =>
      `<path d="M${x} ${y}L${numberX} ${numberY}" stroke="var(--ink)" stroke-width="0.5"/>` +
      `<circle cx="${x}" cy="${y}" r="0.9" fill="var(--ink)"/>` +
      `<circle cx="${numberX}" cy="${numberY}" r="${RADIUS}" fill="var(--ink)"/>` +
      `<text x="${numberX}" y="${numberY + 1.5}" font-size="4.4" font-weight="700" fill="var(--sheet)" ` +
      `text-anchor="middle" font-family="Atkinson Hyperlegible Next, Noto Sans, sans-serif">${number}</text>`,
  );
  // From the waist down: the rest says nothing here.
  const top = 18;
  const box = `${-MARGIN} ${top} ${width + 2 * MARGIN} ${height - top}`;
  return onPaper(
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${box}" width="${width + 2 * MARGIN}" ` +
      `height="${height - top}"><style>${style}</style>${inside}${marks.join("")}</svg>`,
  );
}

let known: Catalogue | null = null;

Object.assign(globalThis, {
  /** The catalogue, once. */
  knowCatalogue: (json: string): boolean => {
    known = JSON.parse(json) as Catalogue;
    return true;
  },
  figuresOf: (json: string): string => {
    const { record, reading, how } = JSON.parse(json) as {
      record: Screen["record"];
      reading: Reading;
      how: How;
    };
    if (!known) throw new Error("no catalogue yet");
    return JSON.stringify(figures(known, record, reading, how));
  },
  bodyOf: (json: string): string => JSON.stringify(body(JSON.parse(json) as Pin[])),
  linesOf: (json: string): string => {
    const { course, today } = JSON.parse(json) as { course: Course; today: string };
    if (!known) throw new Error("no catalogue yet");
    return JSON.stringify(changeLines(known, course, today));
  },
});
