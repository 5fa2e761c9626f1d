import { Link } from "react-router";
import type { Catalogue } from "../../api/catalogue";
import type { Signed } from "../../api/screens";
import { SideMark } from "../../components/SideMark";
import { stepTo } from "../../state/addresses";
import { actionWords, dayWords, flagName } from "../../state/wording";
import { CAUSES, type MadeDifference, stateWords } from "./Made";
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
      <MadeDifferences differences={differences ?? []} catalogue={catalogue} />
    </section>
  );
}

/** Flags and actions that came, went or changed, and what did it. */
export function MadeDifferences(props: {
  differences: readonly MadeDifference[];
  catalogue: Catalogue;
}) {
  return props.differences.map((item) => (
    <p key={`${item.what} ${item.code} ${item.side} ${item.cause}`} className="mb-1">
      {item.side ? <SideMark side={item.side} /> : null} {nameOf(props.catalogue, item)}:{" "}
      {said(item.before)} → {said(item.after)} <span className="muted">{CAUSES[item.cause]}</span>
    </p>
  ));
}

function nameOf(catalogue: Catalogue, { what, code, before, after }: MadeDifference): string {
  if (what === "flags") return flagName(catalogue, code);
  const urgency = before?.urgency ?? after?.urgency ?? "";
  return `Action, ${actionWords({ code, urgency }, catalogue)}`;
}

/** Strength first, then what it asks for; a flag or action that is not there says so. */
function said(state: Record<string, string> | null): string {
  if (!state) return "none";
  const { from, to } = state;
  const days =
    from && to ? `${dayWords(from)} to ${dayWords(to)}` : to ? `by ${dayWords(to)}` : null;
  return [stateWords(state), days].filter(Boolean).join(", ");
}
