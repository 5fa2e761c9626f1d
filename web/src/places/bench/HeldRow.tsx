import { useState } from "react";
import Button from "react-bootstrap/Button";
import type { Catalogue, Test } from "../../api/catalogue";
import type { Schema, Side } from "../../api/client";
import type { Screen } from "../../api/screens";
import { ProblemNote } from "../../components/ProblemNote";
import { isLicensed, useSession } from "../../components/session";
import { useStore } from "../../components/useStore";
import type { Bench } from "../../state/bench";
import { gateWords, openingWords } from "../../state/wording";
import styles from "./bench.module.css";
import { overrideGate } from "./queries";

interface Props {
  bench: Bench;
  test: Test;
  catalogue: Catalogue;
  screen: Screen;
}

type Gate = Schema["OverrideInput"]["gate"];

/** A gate fills its own lane only: why, what opens it, and the way through with a reason. */
export function HeldRow(props: Props) {
  const { reading } = useStore(props.bench.state);
  const held = reading?.held.filter((item) => item.test === props.test.code) ?? [];
  if (held.length === 0) return null;
  const gates = (side: Side) => [
    ...new Set(held.filter((item) => item.side === side || item.side === null).map((i) => i.gate)),
  ];
  const lane = (side: Side) => (
    <div className={`lane-${side}`}>
      {gates(side).map((gate) => (
        <HeldLane key={gate} {...props} side={side} gate={gate} />
      ))}
    </div>
  );
  return (
    <div className="lanes">
      {lane("left")}
      <div className="spine">
        <strong>Held</strong>
        <span className="muted small">kept, not read</span>
      </div>
      {lane("right")}
    </div>
  );
}

function HeldLane({
  bench,
  test,
  catalogue,
  screen,
  side,
  gate,
}: Props & { side: Side; gate: Gate }) {
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
