import { classes } from "../../components/base/classes";
import { PointMark } from "../../maps/PointMark";
import styles from "./map-row.module.css";

interface Props {
  marks: readonly { mark: string; says: string }[];
}

/** What the marks on a drawing mean, in words. */
export function MarkLegend({ marks }: Props) {
  return (
    <ul className={classes("list-unstyled muted small m-0", styles.legend)} aria-label="Marks">
      {marks.map(({ mark, says }) => (
        <li key={says}>
          <PointMark mark={mark} /> {says}
        </li>
      ))}
    </ul>
  );
}
