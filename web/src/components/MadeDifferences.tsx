import type { Catalogue } from "../api/catalogue";
import { CAUSES, type MadeDifference, madeName, madeState } from "../state/made";
import { SideMark } from "./SideMark";

interface Props {
  differences: readonly MadeDifference[];
  catalogue: Catalogue;
  /** Whether what did it is said of each. */
  cause?: boolean;
}

/** Flags and actions that came, went or changed, and what did it. */
export function MadeDifferences({ differences, catalogue, cause = true }: Props) {
  return differences.map((item) => (
    <p key={`${item.what} ${item.code} ${item.side} ${item.cause}`} className="mb-1">
      {item.side ? <SideMark side={item.side} /> : null} {madeName(catalogue, item)}:{" "}
      {madeState(item.before)} → {madeState(item.after)}{" "}
      {cause ? <span className="muted">{CAUSES[item.cause]}</span> : null}
    </p>
  ));
}
