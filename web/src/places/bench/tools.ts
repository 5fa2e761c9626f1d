// What the tools of a lane are told, on both sides of their card.
import type { Site, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Screen } from "../../api/screens";
import type { Question } from "../../state/domain/questions";
import type { Bench } from "../../state/screen/bench";

export interface ToolsProps {
  bench: Bench;
  test: Test;
  entryKey: string;
  /** Which bone, toe, space or position, in words. */
  of: string;
  screen: Screen;
  now: Question | null;
  sites: Site[];
}

export interface ToolLaneProps extends ToolsProps {
  side: Side;
}

export const TOOLS = ["pain", "note", "declined", "more"] as const;
export type Tool = (typeof TOOLS)[number];
