import type { Catalogue } from "../../api/catalogue";
import {
  type AmendedDifference,
  amendedName,
  amendedState,
  CAUSES,
} from "../../state/domain/amended";
import { SideMark } from "./SideMark";

interface Props {
  differences: readonly AmendedDifference[];
  catalogue: Catalogue;
  /** Whether what did it is said of each. */
  cause?: boolean;
}

/** Flags and actions that came, went or changed, and what did it. */
export function AmendedDifferences({ differences, catalogue, cause = true }: Props) {
  return differences.map((item) => (
    <p key={`${item.what} ${item.code} ${item.side} ${item.cause}`} className="mb-1">
      {item.side ? <SideMark side={item.side} /> : null} {amendedName(catalogue, item)}:{" "}
      {amendedState(item.before)} → {amendedState(item.after)}{" "}
      {cause ? <span className="muted">{CAUSES[item.cause]}</span> : null}
    </p>
  ));
}
