import type { Catalogue } from "../../api/catalogue";
import type { Clash } from "../../api/screens";
import { LANES } from "../../state/device/lanes";
import { lateWords } from "../../state/domain/audit";
import { askedWords, valueWords } from "../../state/screen/answer_words";
import { isLicensed, isStaff, useSession } from "../base/session";
import { SideMark } from "../marks/SideMark";
import styles from "./two_values.module.css";

interface Props {
  clashes: readonly Clash[];
  catalogue: Catalogue;
  /** The answer that is to stand. */
  onChoose: (answer: Clash["holds"]) => void;
}

/** Two answers to one question, seen by two: both, beside each other in their own lane, until one is chosen. */
export function TwoValues({ clashes, catalogue, onChoose }: Props) {
  if (clashes.length === 0) return null;
  const dangerFirst = [...clashes].sort((one, two) => Number(two.danger) - Number(one.danger));
  return (
    <section className={styles.two} aria-label="Two answers to one question">
      {dangerFirst.map((clash) => (
        <OneClash key={clash.beside.id} {...{ clash, catalogue, onChoose }} />
      ))}
    </section>
  );
}

function OneClash({ clash, catalogue, onChoose }: { clash: Clash } & Omit<Props, "clashes">) {
  const session = useSession();
  const { holds, beside, danger } = clash;
  const test = catalogue.tests.find(({ code }) => code === holds.test);
  const may = danger ? isLicensed(session) : isStaff(session);
  // The one that was seen first stands first, whichever holds.
  const [first, second] = timeOf(holds) <= timeOf(beside) ? [holds, beside] : [beside, holds];
  const lane = holds.side ? LANES.indexOf(holds.side) + 1 : null;
  return (
    <div
      className={styles.clash}
      data-danger={danger || undefined}
      data-may={may || undefined}
      data-lane={lane ?? undefined}
    >
      <p className={styles.asked}>
        {holds.side ? <SideMark side={holds.side} /> : null}{" "}
        <strong>{askedWords(catalogue, holds)}</strong>
        <span className={`muted ${styles.about}`}>
          {test ? ` ${test.name}.` : ""} Two answers.{" "}
          {danger ? "The more careful one holds until somebody licensed chooses." : ""}
          {may ? "" : " A practitioner or owner chooses."}
        </span>
      </p>
      <div className={styles.versions}>
        {[first, second].map((answer) => (
          <button
            key={answer.id}
            type="button"
            className={styles.version}
            disabled={!may}
            onClick={() => onChoose(answer)}
          >
            <span className={styles.value}>{valueWords(catalogue, answer)}</span>
            <span>
              {answer.by ?? "unknown"}
              {answer.at ? `, ${lateWords(answer.at, session.time_zone)}` : ""}
              <span className="muted">
                {answer === holds ? ", holds meanwhile" : ", beside it"}
              </span>
            </span>
            {may ? <span className={styles.choose}>This one holds</span> : null}
          </button>
        ))}
      </div>
    </div>
  );
}

const timeOf = ({ at, revision }: Clash["holds"]): number => (at ? Date.parse(at) : revision);
