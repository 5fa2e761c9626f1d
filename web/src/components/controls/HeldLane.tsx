import { useState } from "react";
import Button from "react-bootstrap/Button";
import type { Catalogue } from "../../api/catalogue";
import type { Schema, Side } from "../../api/client";
import { overrideGate, type Screen } from "../../api/screens";
import { gateWords, openingWords } from "../../state/domain/wording";
import type { Bench } from "../../state/screen/bench";
import { isLicensed, useSession } from "../base/session";
import { ProblemNote } from "../marks/ProblemNote";
import styles from "./held.module.css";

interface Props {
  bench: Bench;
  /** Where the reason is kept while it is written. */
  test: { code: string };
  catalogue: Catalogue;
  screen: Screen;
  side: Side;
  gate: Schema["OverrideInput"]["gate"];
}

/** A gate on its side: why, what opens it by itself, and the way through with a reason and a name. */
export function HeldLane({ bench, test, catalogue, screen, side, gate }: Props) {
  const place = { test: test.code, side, key: "", field: `override.${gate}` };
  const licensed = isLicensed(useSession());
  const kept = bench.textDraft(place);
  const [reason, setReason] = useState(kept);
  const [error, setError] = useState<unknown>(null);
  const [sending, setSending] = useState(false);
  const open = async () => {
    setSending(true);
    try {
      await overrideGate(screen.record.id, { gate, side, reason: (reason ?? "").trim() });
      bench.clearText(place);
      bench.readAgain();
    } catch (problem) {
      setError(problem);
    } finally {
      setSending(false);
    }
  };
  return (
    <div className={styles.held}>
      <p role="status">
        <strong>Held {side}.</strong> {gateWords(catalogue, gate)} What is written is kept and not
        read. <span className="muted">{openingWords(catalogue, gate)}</span>
      </p>
      {reason === null ? (
        <Button variant="quiet" disabled={!licensed} onClick={() => setReason("")}>
          {licensed ? "Open it with a reason" : "A practitioner can open it"}
        </Button>
      ) : (
        <div className={styles["held-form"]}>
          <label>
            Why is it safe to open, {side}
            <input
              value={reason}
              maxLength={500}
              onChange={(event) => {
                setReason(event.target.value);
                bench.keepText(place, event.target.value);
              }}
            />
          </label>
          <Button disabled={!reason.trim() || sending} onClick={() => void open()}>
            Open on the {side}
          </Button>
          <Button
            variant="quiet"
            onClick={() => {
              bench.clearText(place);
              setReason(null);
            }}
          >
            Leave it shut
          </Button>
          <ProblemNote error={error} />
        </div>
      )}
    </div>
  );
}
