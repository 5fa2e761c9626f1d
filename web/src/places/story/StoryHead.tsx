import { Link } from "react-router";
import { SignedNote } from "../../components/marks/SignedNote";
import { stepTo } from "../../state/domain/addresses";
import { PURPOSE_CODES, purposeFor, purposeName } from "../../state/domain/wording";
import { questionsAbout, stillOpen, told } from "../../state/screen/story";
import { PARTS, type PartName, type PartProps, SQUAD } from "./parts";
import styles from "./story.module.css";

interface Props extends PartProps {
  part: PartName | "squad";
  purpose: string;
}

/** What is asked now, for what purpose, and the parts of the story with what each still lacks. */
export function StoryHead(props: Props) {
  const { bench, screen, part, purpose, told: known } = props;
  const { title, says } = PARTS.find((each) => each.part === part) ?? SQUAD;
  const better = purposeFor(known.regions, purpose);
  const change = (to: string) => bench.write([{ ...told("purpose"), value: to }]);
  return (
    <header className={styles.head}>
      <div>
        <h1>{title}</h1>
        <p className="muted">{says}</p>
      </div>
      <label className={styles.purpose}>
        <span className="only-read-aloud">Purpose</span>
        <select
          className="form-select"
          value={purpose}
          onChange={(event) => change(event.target.value)}
        >
          {PURPOSE_CODES.map((code) => (
            <option key={code} value={code}>
              {purposeName(code)}
            </option>
          ))}
        </select>
      </label>
      {better ? (
        <button type="button" className="plate" onClick={() => change(better)}>
          Make it: {purposeName(better)}
        </button>
      ) : null}
      <nav className={styles.parts} aria-label="Parts of the story">
        {PARTS.map((each) => (
          <Link
            key={each.part}
            to={stepTo(screen.record.id, "story", each.part)}
            replace
            aria-current={each.part === part ? "step" : undefined}
          >
            {each.tab}
            <Lacking {...props} of={each.part} />
          </Link>
        ))}
      </nav>
      <SignedNote bench={bench} />
    </header>
  );
}

/** How many danger questions stand open: seen from every part. */
function Lacking({ catalogue, told: known, facts, reading, of }: Props & { of: PartName }) {
  if (of !== "danger") return null;
  const asked = (reading?.ask ?? []).map((item) => item.item);
  const items = questionsAbout("danger", catalogue.story, known, facts, asked);
  const open = stillOpen(items, facts).length;
  return open === 0 ? null : <span className={styles.lacking}>{open} open</span>;
}
