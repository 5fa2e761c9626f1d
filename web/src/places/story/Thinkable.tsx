import type { Catalogue } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Reading } from "../../api/screens";
import { Tally } from "../../components/marks/Tally";
import { flagName } from "../../state/domain/wording";
import styles from "./story.module.css";

interface Props {
  reading: Reading | null;
  catalogue: Catalogue;
  side: Side | null;
}

/** What the story makes thinkable on a side, or on none, and what would have to be looked at. */
export function Thinkable({ reading, catalogue, side }: Props) {
  if (!reading) return null;
  const flags = reading.flags.filter((flag) => flag.side === side);
  const silent = (reading.coverage.unexamined ?? []).filter((item) => item.side === side);
  if (flags.length === 0 && silent.length === 0) return null;
  return (
    <section className={styles.thinkable} aria-label={`Thinkable, ${side ?? "no side"}`}>
      {flags.length > 0 ? <h3>Becomes thinkable</h3> : null}
      <ul>
        {flags.map((flag) => (
          <li key={flag.code}>
            <Tally strength={flag.strength} /> <strong>{flagName(catalogue, flag.code)}</strong>
            <div className="muted">{flag.because.map((reason) => reason.says).join(" ")}</div>
          </li>
        ))}
      </ul>
      {silent.length > 0 ? <h3>To be looked at</h3> : null}
      <ul>
        {silent.map((item) => (
          <li key={item.structure} className={styles.look}>
            {item.name}
            {item.why === "held" ? <span className="muted"> held</span> : null}
          </li>
        ))}
      </ul>
    </section>
  );
}
