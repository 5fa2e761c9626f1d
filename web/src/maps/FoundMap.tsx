import type { CSSProperties } from "react";
import type { Measure } from "../api/catalogue";
import type { Side } from "../api/client";
import type { Json } from "../state/domain/fields";
import { foundOn } from "./found";
import { Drawing } from "./MapView";
import styles from "./map.module.css";
import { PointMark } from "./PointMark";
import { boxOf } from "./places";

interface Props {
  measure: Measure;
  side: Side;
  values: ReadonlyMap<string, Json>;
}

/** The view that shows most of what was found, with its marks; to be read, not to be tapped. */
export function FoundMap({ measure, side, values }: Props) {
  const found = foundOn(measure, side, values);
  if (!found) return null;
  const [width, height] = boxOf(found.view);
  return (
    <div
      className={styles.map}
      style={{ "--shape": width / height } as CSSProperties}
      role="img"
      aria-label={found.says}
    >
      <Drawing view={found.view} side={side} />
      {found.marks.map(({ code, left, top, mark }) => (
        <span key={code} className={styles.found} style={{ left: `${left}%`, top: `${top}%` }}>
          <PointMark mark={mark} />
        </span>
      ))}
    </div>
  );
}
