import type { Catalogue } from "../../api/catalogue";
import type { Reading } from "../../api/screens";
import { questionWords } from "../../state/domain/wording";

interface Props {
  reading: Reading;
  catalogue: Catalogue;
}

/** What nobody asked and a rule needs: urgent ones first, each with what hangs on it. */
export function OpenQuestions({ reading, catalogue }: Props) {
  const asked = reading.ask ?? [];
  if (asked.length === 0) return null;
  return (
    <section className="open-questions" aria-label="Still to ask">
      <h2 className="panel-title">Still to ask</h2>
      {asked.map((item) => (
        <p key={item.item} className={item.urgent ? "urgent-question" : "question"}>
          <strong>{questionWords(catalogue, item.item)}</strong>{" "}
          <span className="muted">
            {item.urgent ? "Before anything else. " : ""}
            {item.why}
          </span>
        </p>
      ))}
    </section>
  );
}
