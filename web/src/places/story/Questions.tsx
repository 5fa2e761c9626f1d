import Button from "react-bootstrap/Button";
import type { Catalogue } from "../../api/catalogue";
import type { Reading } from "../../api/screens";
import { questionWords } from "../../state/domain/wording";
import type { Bench } from "../../state/screen/bench";
import { type Facts, factAt, stillOpen, told } from "../../state/screen/story";
import { Plates, YES_NO } from "./Plates";
import styles from "./story.module.css";

interface Props {
  bench: Bench;
  catalogue: Catalogue;
  facts: Facts;
  reading: Reading | null;
  title: string;
  items: readonly string[];
  /** What writes a no to each question of these that is open. */
  none: string;
}

/** Questions answered yes, no or left open. What one tap says of the rest, it says of what stands in sight. */
export function Questions({ bench, catalogue, facts, reading, title, items, none }: Props) {
  const open = stillOpen(items, facts);
  const asked = new Map((reading?.ask ?? []).map((ask) => [ask.item, ask]));
  return (
    <section aria-label={title}>
      <h2 className={styles.title}>
        <span>{title}</span>
        <small className="muted">{open.length === 0 ? "all asked" : `${open.length} open`}</small>
      </h2>
      <div className={styles.list}>
        {items.map((item) => (
          <Plates
            key={item}
            label={questionWords(catalogue, item)}
            options={YES_NO}
            value={factAt(facts, item)}
            urgent={asked.get(item)?.urgent ?? false}
            why={asked.get(item)?.why}
            onPick={(value) => bench.write([{ ...told(item), value }])}
          />
        ))}
      </div>
      {open.length > 1 ? (
        <Button
          variant="quiet"
          onClick={() => bench.write(open.map((item) => ({ ...told(item), value: false })))}
        >
          {none}
        </Button>
      ) : null}
    </section>
  );
}
