import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import Modal from "react-bootstrap/Modal";
import { catalogueQuery } from "../../api/catalogue";
import type { CheckedTable, Columns } from "../../api/values";
import { HURTS, OTHERS } from "../../components/controls/purposes";
import type { Purpose } from "../../components/controls/useBegin";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { dayWords, purposeName } from "../../state/domain/wording";
import { ColumnRoles } from "./ColumnRoles";
import styles from "./people.module.css";
import { stepWords, useTable, wasStopped } from "./useTable";
import { rolesOf, roleTyped } from "./value_columns";

interface Props {
  text: string;
  columns: Columns;
  onTaken: () => void;
  onClose: () => void;
}

/** A table of values: what each column becomes, a dry run, and then all of it or nothing. */
export default function ImportValues({ text, columns, onTaken, onClose }: Props) {
  const catalogue = useQuery(catalogueQuery);
  const [typed, setTyped] = useState(() => columns.columns.map(({ role }) => role));
  const known = catalogue.data ? rolesOf(catalogue.data, columns.roles) : columns.roles;
  const roles = typed.map((each) => roleTyped(each, known));
  const [purpose, setPurpose] = useState<Purpose>("squad_screen");
  const body = { text, roles, purpose };
  const { look, take, step, stop, busy } = useTable(body, onTaken);
  const type = (at: number, role: string) => {
    setTyped(typed.map((each, place) => (place === at ? role : each)));
    // Another meaning is another table: what was tried says nothing of it.
    look.reset();
  };
  return (
    <Modal show scrollable size="xl" onHide={onClose} aria-labelledby="values-title">
      <Modal.Body>
        <h2 id="values-title" className="fs-4">
          A table of {columns.rows.toLocaleString("en-GB")} {columns.rows === 1 ? "row" : "rows"}
        </h2>
        {take.data ? (
          <Taken {...take.data} />
        ) : (
          <>
            {look.data ? <Tried found={look.data} /> : null}
            <ProblemNote error={toldOf(take.error ?? look.error)} />
            <p className="muted">
              What each column becomes. Nothing is taken before it was tried without a fault.
            </p>
            <ColumnRoles columns={columns} typed={typed} known={known} onType={type} />
            {roles.includes("purpose") ? null : (
              <PurposeChoice
                purpose={purpose}
                onPurpose={(chosen) => {
                  setPurpose(chosen);
                  look.reset();
                }}
              />
            )}
          </>
        )}
      </Modal.Body>
      <Modal.Footer>
        <Button variant="quiet" onClick={onClose}>
          {take.data ? "Close" : "Leave it"}
        </Button>
        {take.data ? null : (
          <>
            {busy ? (
              <>
                <span role="status">{step ? stepWords(step) : "Waiting for its turn…"}</span>
                <Button variant="quiet" onClick={stop}>
                  Stop
                </Button>
              </>
            ) : null}
            <Button
              variant={soundIn(look.data) ? "quiet" : "primary"}
              disabled={busy}
              onClick={() => look.mutate()}
            >
              Try it
            </Button>
            {soundIn(look.data) ? (
              <Button autoFocus disabled={busy} onClick={() => take.mutate()}>
                Take {newIn(look.data)}
              </Button>
            ) : null}
          </>
        )}
      </Modal.Footer>
    </Modal>
  );
}

/** What the screens are for, where no column says it. */
function PurposeChoice(props: { purpose: Purpose; onPurpose: (chosen: Purpose) => void }) {
  const id = useId();
  return (
    <div className={styles.tried}>
      <Form.Label htmlFor={id}>No column says what the screens are for</Form.Label>
      <Form.Select
        id={id}
        value={props.purpose}
        onChange={(event) => props.onPurpose(event.target.value as Purpose)}
      >
        {[...OTHERS, ...HURTS].map(([code, says]) => (
          <option key={code} value={code}>
            {says}
          </option>
        ))}
      </Form.Select>
    </div>
  );
}

const toldOf = (error: unknown): unknown => (wasStopped(error) ? null : error);

const soundIn = (found: CheckedTable | undefined): found is CheckedTable =>
  found !== undefined && found.faults.length === 0;

const counted = (count: number, one: string): string => `${count} ${one}${count === 1 ? "" : "s"}`;

const entries = (count: number): string => (count === 1 ? "1 entry" : `${count} entries`);

const newIn = ({ screens }: CheckedTable): string =>
  counted(screens.filter(({ stands }) => !stands).length, "screen");

function Taken({ screens, new_athletes }: { screens: number; new_athletes: number }) {
  return (
    <p role="status">
      {counted(screens, "screen")} taken, {counted(new_athletes, "athlete")} new here.
    </p>
  );
}

/** Every fault by its place, or every screen that would be made. */
function Tried({ found }: { found: CheckedTable }) {
  if (found.faults.length > 0) {
    return (
      <section className={styles.tried} aria-label="Faults">
        <h3 className="fs-5">
          {counted(found.faults.length, "fault")}, so nothing can be taken yet
        </h3>
        <table className={styles.table}>
          <thead>
            <tr>
              <th scope="col">line</th>
              <th scope="col">column</th>
              <th scope="col">what is wrong</th>
            </tr>
          </thead>
          <tbody>
            {found.faults.map((fault) => (
              <tr key={`${fault.line} ${fault.column} ${fault.problem}`}>
                <td>{fault.line}</td>
                <td>{fault.column || "the whole line"}</td>
                <td className="fault">{fault.problem}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    );
  }
  return (
    <section className={styles.tried} aria-label="Screens it makes">
      <h3 className="fs-5">No fault. It makes:</h3>
      <table className={styles.table}>
        <tbody>
          {found.screens.map((screen) => (
            <tr key={screen.id}>
              <td>{screen.name}</td>
              <td className="muted">
                {screen.ref}
                {screen.athlete ? "" : ", new here"}
              </td>
              <td>{dayWords(screen.date)}</td>
              <td>{purposeName(screen.purpose)}</td>
              <td>{screen.stands ? "here already" : entries(screen.entries)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
