import { Link } from "react-router";
import type { Catalogue } from "../../api/catalogue";
import type { Signed } from "../../api/screens";
import { AmendedDifferences } from "../../components/marks/AmendedDifferences";
import { stepTo } from "../../state/domain/addresses";
import { dayWords } from "../../state/domain/wording";
import styles from "./reading.module.css";

interface Props {
  signed: Signed;
  catalogue: Catalogue;
}

/** One signed version by itself: who, why, and what it changed. */
export function SignedVersion({ signed, catalogue }: Props) {
  const { number, reason, by, at, reading, record, differences } = signed;
  return (
    <section className={styles["signed-version"]} aria-label="Signed version">
      <p>
        <strong>{number === 0 ? "As it was signed" : `Amendment ${number}: ${reason}`}</strong>{" "}
        <span className="muted">
          {by}, {dayWords(at)}. Read by rules {reading.rules}
          {reading.fingerprint ? ` (${reading.fingerprint})` : ""}.
        </span>{" "}
        <Link to={stepTo(record.id, "reading")}>Newest version</Link>
      </p>
      <AmendedDifferences differences={differences ?? []} catalogue={catalogue} />
    </section>
  );
}
