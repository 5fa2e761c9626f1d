import type { Schema } from "../../api/client";
import { ANKLE } from "./ankle";
import { COUCH_END_KINDS } from "./couch_end";
import { FOOT } from "./foot";
import type { Kind } from "./kind";
import { MOVING } from "./moving";
import { PRONE } from "./prone";
import { SITTING } from "./sitting";
import { STANDING } from "./standing";
import { SUPINE } from "./supine";

/** The drawings the catalogue may name: one that is missing here does not compile. */
export type FigureKind = Schema["Figure"]["kind"];

export const KINDS: Record<FigureKind, Kind> = {
  ...SUPINE,
  ...COUCH_END_KINDS,
  ...PRONE,
  ...SITTING,
  ...STANDING,
  ...MOVING,
  ...ANKLE,
  ...FOOT,
};
