import { useToday } from "../../components/base/session";
import { factAt, questionsAbout, told } from "../../state/screen/story";
import { daysBefore, readDay, readMinutes } from "./dates";
import { LastVisit } from "./LastVisit";
import { Plates, YES_NO } from "./Plates";
import type { PartProps } from "./parts";
import { Questions } from "./Questions";
import { Scale } from "./Scale";
import styles from "./story.module.css";
import { TextFact } from "./TextFact";

const SINCE = [
  [0, "Today"],
  [1, "Yesterday"],
  [2, "2 days ago"],
  [3, "3 days ago"],
  [7, "A week ago"],
  [14, "2 weeks ago"],
] as const;
const STIFF = [
  [0, "Not stiff"],
  [15, "15 min"],
  [30, "30 min"],
  [60, "An hour"],
] as const;

/** When and how it began, what it does, whether the load went up. */
export function WhenAndHow(props: PartProps) {
  const { bench, catalogue, facts, told: known, reading } = props;
  const { words } = catalogue.story;
  const today = useToday();
  const screenDay = props.screen.record.date;
  const [day = today] = [screenDay, today].sort();
  const pick = (field: string) => (value: unknown) => bench.write([{ ...told(field), value }]);
  const asked = (reading?.ask ?? []).map((item) => item.item);
  const symptoms = questionsAbout("symptoms", catalogue.story, known, facts, asked);
  const urgent = (field: string) =>
    (reading?.ask ?? []).some((item) => item.item === field && item.urgent);
  return (
    <div className={styles.flow}>
      <section aria-label="Beginning">
        <h2 className={styles.title}>Beginning</h2>
        <Plates
          label="How did it happen?"
          options={Object.entries(words.mechanisms)}
          value={factAt(facts, "onset.mechanism")}
          onPick={pick("onset.mechanism")}
        />
        <Plates
          label="Did it begin suddenly or gradually?"
          options={Object.entries(words.kinds)}
          value={factAt(facts, "onset.kind")}
          onPick={pick("onset.kind")}
          urgent={urgent("onset.kind")}
          {...(known.kind === "sudden" ? { why: "As told, it counts as sudden." } : {})}
        />
        <Plates
          label="Since when?"
          options={SINCE.map(([days, says]) => [daysBefore(day, days), says] as const)}
          value={factAt(facts, "onset.date")}
          onPick={pick("onset.date")}
        />
        <div className={styles.beside}>
          <TextFact
            bench={bench}
            place={told("onset.date")}
            label="Or the day"
            type="date"
            read={readDay}
            unreadable="That is no day."
          />
          <Plates
            label="Is the day a guess?"
            options={[[true, "About"]]}
            value={factAt(facts, "onset.about")}
            onPick={pick("onset.about")}
          />
        </div>
        {known.kind === "sudden" ? (
          <Scale
            label="Pain when it happened"
            value={numberAt(facts, "pain.at_onset")}
            onPick={pick("pain.at_onset")}
          />
        ) : null}
      </section>
      <Questions
        {...{ bench, catalogue, facts, reading }}
        title="What it does"
        items={symptoms}
        none="None of the rest"
      />
      <section aria-label="Load and stiffness">
        <h2 className={styles.title}>Load and stiffness</h2>
        <Plates
          label="Has the load gone up lately: more, harder, other ground or shoes?"
          options={YES_NO}
          value={factAt(facts, "load_change")}
          onPick={pick("load_change")}
          urgent={urgent("load_change")}
        />
        <Plates
          label="Stiff in the morning, for how long?"
          options={STIFF}
          value={factAt(facts, "morning_stiffness_min")}
          onPick={pick("morning_stiffness_min")}
        />
        <TextFact
          bench={bench}
          place={told("morning_stiffness_min")}
          label="Or minutes"
          read={readMinutes}
          unreadable="Minutes in digits, up to 1440."
        />
      </section>
      <LastVisit {...props} about="when" />
    </div>
  );
}

function numberAt(facts: PartProps["facts"], field: string): number | null {
  const value = factAt(facts, field);
  return typeof value === "number" ? value : null;
}
