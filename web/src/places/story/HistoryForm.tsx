import Button from "react-bootstrap/Button";
import type { Catalogue } from "../../api/catalogue";
import { useStore } from "../../components/base/useStore";
import type { Bench } from "../../state/screen/bench";
import { told } from "../../state/screen/story";
import { EMPTY_LINE, lineFrom, readLine, type TypedLine } from "./history_form";
import { Plates } from "./Plates";
import styles from "./story.module.css";

const SIDES = [
  ["left", "Left"],
  ["right", "Right"],
  ["both", "Both"],
] as const;
const DRAFT = told("history_line");

/** One line more of what was before. Half a line survives a reload like anything typed. */
export function HistoryForm({ bench, catalogue }: { bench: Bench; catalogue: Catalogue }) {
  useStore(bench.state);
  const { words } = catalogue.story;
  const line = readLine(bench.textDraft(DRAFT));
  const put = (part: Partial<TypedLine>) => {
    const next = { ...line, ...part };
    if (JSON.stringify(next) === JSON.stringify(EMPTY_LINE)) bench.clearText(DRAFT);
    else bench.keepText(DRAFT, JSON.stringify(next));
  };
  const regions = Object.entries(words.regions).filter(([code]) => code !== "none");
  const made = lineFrom(line);
  const add = () => {
    if (typeof made === "string") return;
    bench.clearText(DRAFT);
    const key = crypto.randomUUID().slice(0, 8);
    bench.write([
      { ...told("history.none"), value: null },
      { ...told("history", null, key), value: made },
    ]);
  };
  const picked = (value: unknown) => (value === null ? "" : String(value));
  return (
    <div className={styles.form}>
      <Plates
        label="What was it?"
        options={Object.entries(words.history)}
        value={line.kind || null}
        onPick={(value) => put({ kind: picked(value) })}
      />
      {line.kind ? (
        <>
          <Plates
            label="Of what?"
            options={regions}
            value={line.region || null}
            onPick={(value) => put({ region: picked(value) })}
          />
          <Plates
            label="Which side was it?"
            options={SIDES}
            value={line.side || null}
            onPick={(value) => put({ side: picked(value) })}
          />
          <div className={styles.beside}>
            <label>
              Weeks ago
              <input
                className="form-control"
                inputMode="numeric"
                value={line.weeks}
                maxLength={4}
                onChange={(event) => put({ weeks: event.target.value })}
              />
            </label>
            <label>
              How often
              <input
                className="form-control"
                inputMode="numeric"
                value={line.count}
                maxLength={3}
                onChange={(event) => put({ count: event.target.value })}
              />
            </label>
          </div>
          {typeof made === "string" ? <p className="muted">{made}</p> : null}
          <Button variant="quiet" disabled={typeof made === "string"} onClick={add}>
            Add this line
          </Button>
        </>
      ) : null}
    </div>
  );
}
