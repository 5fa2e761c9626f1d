import { part } from "../components/base/part";
import type { FigureViewProps } from "./FigureView";

const Waiting = () => null;

// The skeleton comes when the first figure is shown.
const figure = part<FigureViewProps>(
  () => import("./FigureView").then(({ FigureView }) => ({ default: FigureView })),
  Waiting,
);

/** The drawing of a step of a test. */
export const Figure = figure.Place;
