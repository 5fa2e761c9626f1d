// Which side of its mark a name goes, so that no name lies on another name or on a mark. A name that
// finds no room is left out: it is in the list beside the drawing, and on the mark when it is reached.

export interface Spotted {
  code: string;
  label: string;
  /** Percent of the drawing's width and height. */
  left: number;
  top: number;
  /** Named first where room is short. */
  first: boolean;
}

export type LabelSpot = "after" | "before" | "above" | "below";

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

const LETTER_PX = 6.3;
const CAPITAL_PX = 8.4;
const LINE_PX = 14;
const LONGEST_LINE = 13;
const MARK_PX = 22;
const GAP_PX = 3;

/** A name in short lines, at its spaces. */
export function linesOf(label: string): string[] {
  const lines: string[] = [];
  for (const word of label.split(" ")) {
    const line = lines.at(-1);
    if (line !== undefined && `${line} ${word}`.length <= LONGEST_LINE) {
      lines[lines.length - 1] = `${line} ${word}`;
    } else {
      lines.push(word);
    }
  }
  return lines;
}

/** Where each name goes on a drawing of this many pixels. */
export function labelSpots(
  points: readonly Spotted[],
  width: number,
  height: number,
): Map<string, LabelSpot> {
  const marks = points.map((point) => markBox(point, width, height));
  const names: Box[] = [];
  const spots = new Map<string, LabelSpot>();
  const ordered = [...points].sort((one, two) => Number(two.first) - Number(one.first));
  for (const point of ordered) {
    const own = markBox(point, width, height);
    const outwards =
      point.left > 55 ? (["before", "after"] as const) : (["after", "before"] as const);
    const tried: LabelSpot[] = [...outwards, "above", "below"];
    const found = tried.find((spot) => {
      const name = nameBox(point.label, own, spot);
      return (
        inside(name, width, height) &&
        !names.some((other) => meet(name, other)) &&
        !marks.some((mark) => meet(name, mark))
      );
    });
    if (!found) continue;
    names.push(nameBox(point.label, own, found));
    spots.set(point.code, found);
  }
  return spots;
}

/** How wide each mark may be touched, in pixels, so that no two marks lie on each other. */
export function reaches(
  points: readonly Spotted[],
  width: number,
  height: number,
): Map<string, number> {
  const away = (one: Spotted, two: Spotted) =>
    Math.hypot(((one.left - two.left) / 100) * width, ((one.top - two.top) / 100) * height);
  return new Map(
    points.map((point) => {
      const others = points.filter((other) => other !== point).map((other) => away(point, other));
      return [point.code, Math.min(WHOLE_REACH, ...others)];
    }),
  );
}

/** What a finger hits surely. */
export const WHOLE_REACH = 44;

function markBox(point: Spotted, width: number, height: number): Box {
  const x = (point.left / 100) * width - MARK_PX / 2;
  const y = (point.top / 100) * height - MARK_PX / 2;
  return { x, y, width: MARK_PX, height: MARK_PX };
}

function nameBox(label: string, mark: Box, spot: LabelSpot): Box {
  const lines = linesOf(label);
  const width = Math.max(...lines.map(widthOf));
  const height = lines.length * LINE_PX;
  const across = mark.y + (MARK_PX - height) / 2;
  const centred = mark.x + (MARK_PX - width) / 2;
  const at = {
    after: { x: mark.x + MARK_PX + GAP_PX, y: across },
    before: { x: mark.x - GAP_PX - width, y: across },
    above: { x: centred, y: mark.y - height },
    below: { x: centred, y: mark.y + MARK_PX },
  }[spot];
  return { ...at, width, height };
}

const widthOf = (line: string): number =>
  [...line].reduce((sum, letter) => sum + (/[A-Z]/.test(letter) ? CAPITAL_PX : LETTER_PX), 0);

const inside = (box: Box, width: number, height: number): boolean =>
  box.x >= 0 && box.y >= 0 && box.x + box.width <= width && box.y + box.height <= height;

const meet = (one: Box, two: Box): boolean =>
  one.x < two.x + two.width &&
  two.x < one.x + one.width &&
  one.y < two.y + two.height &&
  two.y < one.y + one.height;
