import { useState } from "react";
import Button from "react-bootstrap/Button";
import { HURTS, OTHERS } from "../../components/controls/purposes";
import { type Purpose, useBegin } from "../../components/controls/useBegin";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { nameOf, type Running } from "../../state/domain/day";
import styles from "./athlete.module.css";
import type { AthleteParts } from "./parts";

type Open = "hurts" | "other" | null;

/** Whose page it is, what is due in one sentence, and every purpose in two taps at most. */
export function AthleteHead({
  athlete,
  catalogue,
  running,
}: AthleteParts & { running: Running[] }) {
  const [open, setOpen] = useState<Open>(null);
  const begin = useBegin(athlete.id);
  const go = (purpose: Purpose) => begin.mutate({ id: crypto.randomUUID(), purpose });
  const due = running.find((each) => each.due);
  const plates = open === "hurts" ? HURTS : open === "other" ? OTHERS : [];
  const toggle = (part: Open, label: string) => (
    <Button
      variant="quiet"
      aria-expanded={open === part}
      onClick={() => setOpen(open === part ? null : part)}
    >
      {label}
    </Button>
  );
  return (
    <header className={styles.head}>
      <h1>
        {athlete.name}{" "}
        <span>
          {due ? (
            <>
              <strong>Due, {due.words}:</strong> {nameOf(due.action, catalogue)}
            </>
          ) : (
            "Nothing is due."
          )}
        </span>
      </h1>
      {athlete.archived ? (
        <p className="muted">Archived: restore in People to begin a screen.</p>
      ) : (
        <div className={styles.begin}>
          {toggle("hurts", "Something hurts…")}
          {toggle("other", "Other screen…")}
          <Button
            variant={due ? "primary" : "quiet"}
            disabled={begin.isPending}
            onClick={() => go("follow_up")}
          >
            Begin follow-up
          </Button>
        </div>
      )}
      {plates.length > 0 ? (
        <div className={`plates ${styles.purposes}`}>
          {plates.map(([purpose, says]) => (
            <button
              key={purpose}
              type="button"
              className="plate"
              disabled={begin.isPending}
              onClick={() => go(purpose)}
            >
              {says}
            </button>
          ))}
        </div>
      ) : null}
      <ProblemNote error={begin.error} />
    </header>
  );
}
