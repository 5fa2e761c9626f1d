import { Link } from "react-router";
import type { Catalogue } from "../../api/catalogue";
import type { Signed } from "../../api/screens";
import { SideMark } from "../../components/SideMark";
import { dayWords, flagName, readable } from "../../state/wording";
import { stepTo } from "../map";

interface Props {
  signed: Signed;
  catalogue: Catalogue;
}

const CAUSES = { answers: "by what was recorded", rules: "by newer rules" } as const;

/** One signed version by itself: who, why, and what it changed. */
export function SignedVersion({ signed, catalogue }: Props) {
  const { number, reason, by, at, reading, record, differences } = signed;
  return (
    <section className="signed-version" aria-label="Signed version">
      <p>
        <strong>{number === 0 ? "As it was signed" : `Amendment ${number}: ${reason}`}</strong>{" "}
        <span className="muted">
          {by}, {dayWords(at)}. Read by rules {reading.rules}
          {reading.fingerprint ? ` (${reading.fingerprint})` : ""}.
        </span>{" "}
        <Link to={stepTo(record.id, "reading")}>Newest version</Link>
      </p>
      {differences?.map((item) => (
        <p key={`${item.what} ${item.code} ${item.side} ${item.cause}`} className="mb-1">
          {item.side ? <SideMark side={item.side} /> : null}{" "}
          {item.what === "flags" ? flagName(catalogue, item.code) : readable(item.code)}:{" "}
          {said(item.before)} → {said(item.after)}{" "}
          <span className="muted">{CAUSES[item.cause]}</span>
        </p>
      ))}
    </section>
  );
}

const said = (state: Record<string, string> | null): string =>
  state ? Object.values(state).map(readable).join(", ") : "none";
