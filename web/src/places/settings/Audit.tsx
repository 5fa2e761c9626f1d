import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import { useSearchParams } from "react-router";
import { useSession } from "../../components/base/session";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { auditWords, momentWords } from "../../state/domain/audit";
import { type AuditRow, auditQuery } from "./queries";
import styles from "./settings.module.css";

const PAGE = 200;

/** Who read and wrote a record, and when: opened from the record itself. */
export function Audit() {
  const [params] = useSearchParams();
  const noun = params.get("noun") === "athlete" ? "athlete" : "screen";
  const key = params.get("key");
  return (
    <section aria-label="Audit">
      <h2>Audit of {noun === "athlete" ? "an athlete" : "a screen"}</h2>
      {key ? (
        <Trail key={`${noun} ${key}`} noun={noun} record={key} />
      ) : (
        <p>Open a screen's Reading or an athlete's page, and choose Audit there.</p>
      )}
    </section>
  );
}

function Trail({ noun, record }: { noun: "athlete" | "screen"; record: string }) {
  const [before, setBefore] = useState<number | null>(null);
  const session = useSession();
  const found = useQuery(auditQuery(noun, record, before));
  if (found.error) return <ProblemNote error={found.error} />;
  if (!found.data) return <p className="muted">Opening</p>;
  const rows: AuditRow[] = found.data;
  const oldest = rows.at(-1);
  return (
    <div className={styles.wide}>
      <table>
        <thead>
          <tr>
            <th scope="col">When</th>
            <th scope="col">Who</th>
            <th scope="col">What</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.id}>
              <td>{momentWords(row.at, session.time_zone)}</td>
              <td>{row.by ?? "the app itself"}</td>
              <td>{auditWords(row)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {oldest && rows.length === PAGE ? (
        <Button variant="quiet" onClick={() => setBefore(oldest.id)}>
          Older
        </Button>
      ) : null}
      {before === null ? null : (
        <Button variant="quiet" onClick={() => setBefore(null)}>
          Newest
        </Button>
      )}
    </div>
  );
}
