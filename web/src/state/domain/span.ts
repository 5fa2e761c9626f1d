import type { Course } from "../../api/course";

/** From the first thing that happened to today: the same axis for every line of an athlete. */
export function spanOf(course: Course, today: string): readonly [string, string] {
  const days = [
    ...course.screens.map((screen) => screen.date),
    ...course.lines.flatMap((line) => line.points.map((point) => point.date)),
    today,
  ].sort();
  return [days[0] ?? today, days.at(-1) ?? today];
}
