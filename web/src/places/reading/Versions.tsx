import { Link } from "react-router";
import type { Screen } from "../../api/screens";
import { stepTo } from "../../state/domain/addresses";
import { dayWords } from "../../state/domain/wording";

/** What was signed, when and by whom; each version can be read by itself. */
export function Versions({ screen }: { screen: Screen }) {
  if (screen.signatures.length === 0) return null;
  return (
    <section aria-label="All signatures">
      <h2>Signed</h2>
      {screen.signatures.map((signature) => (
        <p key={signature.number} className="mb-1">
          <Link to={stepTo(screen.record.id, "reading", signature.number)}>
            {signature.number === 0 ? "Signed" : `Amended: ${signature.reason}`}
          </Link>
          . {signature.by}, {dayWords(signature.at)}
        </p>
      ))}
    </section>
  );
}
