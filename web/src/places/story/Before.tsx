import { ageOn } from "../../state/domain/wording";
import { factAt, historyLines, told } from "../../state/screen/story";
import { historyWords } from "../../state/screen/story_words";
import { BirthDate } from "./BirthDate";
import { HistoryForm } from "./HistoryForm";
import { LastVisit } from "./LastVisit";
import { Plates, YES_NO } from "./Plates";
import type { PartProps } from "./parts";
import styles from "./story.module.css";
import { TextFact } from "./TextFact";

const GROWN_UP = 18;

/** Earlier injuries of both sides, consent, who else is in the room. */
export function Before(props: PartProps) {
  const { bench, catalogue, screen, facts } = props;
  const lines = historyLines(facts);
  const age = ageOn(screen.athlete.birth_date, screen.record.date);
  return (
    <div className={styles.flow}>
      <section aria-label="Earlier injuries">
        <h2 className={styles.title}>Earlier injuries and operations</h2>
        <ul className={styles.lines}>
          {lines.map(({ key, line }) => {
            const says = historyWords(catalogue, line);
            return (
              <li key={key}>
                <span>{says}</span>
                <button
                  type="button"
                  className="plate"
                  aria-label={`Take out: ${says}`}
                  onClick={() => bench.write([{ ...told("history", null, key), value: null }])}
                >
                  Take out
                </button>
              </li>
            );
          })}
        </ul>
        {lines.length === 0 ? (
          <Plates
            label="Earlier injuries or operations of either leg?"
            options={[[true, "Nothing before"]]}
            value={factAt(facts, "history.none")}
            onPick={(value) => bench.write([{ ...told("history.none"), value }])}
          />
        ) : null}
        <HistoryForm bench={bench} catalogue={catalogue} />
      </section>
      <section aria-label="Consent">
        <h2 className={styles.title}>Consent</h2>
        <Plates
          label="Consent to this examination?"
          options={YES_NO}
          value={factAt(facts, "consent.given")}
          onPick={(value) => bench.write([{ ...told("consent.given"), value }])}
        />
        {age === null ? <BirthDate screen={screen} bench={bench} /> : null}
        {age === null || age < GROWN_UP ? (
          <TextFact
            bench={bench}
            place={told("consent.guardian")}
            label="Guardian who consents"
            hint={age === null ? "Needed under 18." : "Under 18: a guardian consents."}
          />
        ) : null}
        <TextFact
          bench={bench}
          place={told("consent.chaperone")}
          label="Chaperone"
          hint="Who else is in the room; uncover no more than is needed, and say so."
        />
      </section>
      <LastVisit {...props} about="before" />
    </div>
  );
}
