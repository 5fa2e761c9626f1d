import Button from "react-bootstrap/Button";
import { Link } from "react-router";
import { stepTo } from "../../state/domain/addresses";
import { questionWords } from "../../state/domain/wording";
import { partAsking, questionsAbout, stillOpen, told } from "../../state/screen/story";
import { LastVisit } from "./LastVisit";
import type { PartProps } from "./parts";
import { Questions } from "./Questions";
import styles from "./story.module.css";

/** Danger in plain words, and what would make the examination mislead. */
export function Danger(props: PartProps) {
  const { bench, catalogue, facts, told: known, reading } = props;
  const asked = (reading?.ask ?? []).map((item) => item.item);
  const about = (what: "danger" | "confounders") =>
    questionsAbout(what, catalogue.story, known, facts, asked);
  const danger = about("danger");
  const misleading = about("confounders");
  const open = stillOpen([...danger, ...misleading], facts);
  const parts = { bench, catalogue, facts, reading };
  return (
    <div className={styles.flow}>
      <Elsewhere {...props} />
      <Questions {...parts} title="Danger" items={danger} none="No to the danger left open" />
      <Questions
        {...parts}
        title="What misleads"
        items={misleading}
        none="No to what misleads, left open"
      />
      {open.length > 0 ? (
        <div className={styles.all}>
          <Button
            variant="quiet"
            onClick={() => bench.write(open.map((item) => ({ ...told(item), value: false })))}
          >
            All read out: no to the {open.length} left open
          </Button>
        </div>
      ) : null}
      <LastVisit {...props} about="danger" />
    </div>
  );
}

/** What the reading asks for first and another part of the story asks. */
function Elsewhere({ reading, catalogue, screen }: PartProps) {
  const asks = (reading?.ask ?? []).flatMap((ask) => {
    const part = ask.urgent ? partAsking(ask.item) : null;
    return part ? [{ ...ask, part }] : [];
  });
  if (asks.length === 0) return null;
  return (
    <section aria-label="Urgent, in another part">
      {asks.map(({ item, why, part }) => (
        <p key={item} className="urgent-question">
          <Link to={stepTo(screen.record.id, "story", part)} replace>
            {questionWords(catalogue, item)}
          </Link>{" "}
          <span className="muted">{why}</span>
        </p>
      ))}
    </section>
  );
}
