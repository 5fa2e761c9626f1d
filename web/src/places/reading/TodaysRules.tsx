import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Catalogue } from "../../api/catalogue";
import type { Reading } from "../../api/screens";
import { AmendedDifferences } from "../../components/marks/AmendedDifferences";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { questionWords } from "../../state/domain/wording";
import { todayQuery } from "./queries";
import styles from "./reading.module.css";

interface Props {
  screen: string;
  number: number;
  signed: Reading;
  catalogue: Catalogue;
}

/** What was signed stays; what today's rules would add to it is one tap away. */
export function TodaysRules(props: Props) {
  const [open, setOpen] = useState(false);
  return (
    <section className={styles["signed-version"]} aria-label="Today's rules">
      <button
        type="button"
        className="text-button"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        What today's rules would add
      </button>
      {open ? <Added {...props} /> : null}
    </section>
  );
}

/** What the signed reading kept itself is not said again. */
function Added({ screen, number, signed, catalogue }: Props) {
  const today = useQuery(todayQuery(screen, number));
  if (today.error) return <ProblemNote error={today.error} />;
  if (!today.data) return <p className="muted">Reading it again.</p>;
  const { rules, fingerprint, differences, ask, unexamined } = today.data;
  return (
    <>
      <p className="muted">
        Rules {rules} ({fingerprint}), read just now. What was signed stays as it is.
      </p>
      {differences.length === 0 ? <p>Flags and actions are the same.</p> : null}
      <AmendedDifferences differences={differences} catalogue={catalogue} />
      {signed.ask === null && ask.length > 0 ? (
        <p>Would ask: {ask.map((item) => questionWords(catalogue, item.item)).join(" ")}</p>
      ) : null}
      {signed.coverage.unexamined === null && unexamined.length > 0 ? (
        <p>
          Not examined:{" "}
          {unexamined
            .map((item) => (item.side ? `${item.name}, ${item.side}` : item.name))
            .join("; ")}
        </p>
      ) : null}
    </>
  );
}
