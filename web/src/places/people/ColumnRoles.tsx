import { useId } from "react";
import Form from "react-bootstrap/Form";
import type { Columns } from "../../api/values";
import { classes } from "../../components/base/classes";
import styles from "./people.module.css";
import { type Role, roleTyped, saysOf } from "./value_columns";

interface Props {
  columns: Columns;
  typed: string[];
  known: Role[];
  onType: (at: number, role: string) => void;
}

/** Each column with its first cells and what it becomes, found by typing part of a name. */
export function ColumnRoles({ columns, typed, known, onType }: Props) {
  const id = useId();
  return (
    <div className={styles.mapping}>
      <datalist id={id}>
        {known.map(({ role, says }) => (
          <option key={role} value={role}>
            {says}
          </option>
        ))}
      </datalist>
      {columns.columns.map((column, at) => {
        const role = typed[at] ?? "";
        const says =
          saysOf(roleTyped(role, known), known) ?? (role === column.role ? column.says : null);
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: columns are known by their order
          <div key={at} className={classes(styles.column, role === "ignore" ? "muted" : "")}>
            <strong>{column.head || "no heading"}</strong>
            <span className="muted">{column.shown.join(" · ")}</span>
            <Form.Control
              list={id}
              value={role}
              aria-label={`What ${column.head || `column ${at + 1}`} becomes`}
              aria-describedby={`${id}-${at}`}
              isInvalid={says === null}
              onFocus={(event) => event.target.select()}
              onChange={(event) => onType(at, event.target.value)}
            />
            <span id={`${id}-${at}`} className={says === null ? "fault small" : "muted small"}>
              {says ?? "nothing a column can become"}
            </span>
          </div>
        );
      })}
    </div>
  );
}
