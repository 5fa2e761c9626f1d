import { useState } from "react";
import type { Test } from "../../api/catalogue";
import type { Lane } from "../../state/domain/fields";
import type { Bench } from "../../state/screen/bench";
import styles from "./bench.module.css";

interface Props {
  bench: Bench;
  test: Test;
  lane: Lane;
  hasValues: boolean;
  onClose: () => void;
}

const REASONS = ["too sore", "refused", "cannot get into position", "no time"];

/** Not done, with the reason: then the screen can be complete without it. */
export function NotDoneCard({ bench, test, lane, hasValues, onClose }: Props) {
  // Not doing a test is of the whole test on that side, whichever bone or toe is in hand.
  const place = { test: test.code, side: lane, key: "", field: "declined" };
  const held = bench.value(place);
  const [own, setOwn] = useState(bench.textDraft(place) ?? "");
  const write = (reason: string | null) => {
    bench.write([{ ...place, value: reason }]);
    onClose();
  };
  if (hasValues && !held) {
    return (
      <>
        <p>Values stand here. Clear them first if this side was not done after all.</p>
        <button type="button" className={styles["card-close"]} onClick={onClose}>
          Close
        </button>
      </>
    );
  }
  return (
    <>
      <fieldset className={styles.toggles} aria-label="Reason">
        {REASONS.map((reason) => (
          <button
            key={reason}
            type="button"
            aria-pressed={held === reason}
            onClick={() => write(reason)}
          >
            {reason}
          </button>
        ))}
      </fieldset>
      <label className={styles["note-label"]}>
        Other reason
        <input
          value={own}
          maxLength={200}
          onChange={(event) => {
            setOwn(event.target.value);
            bench.keepText(place, event.target.value);
          }}
        />
      </label>
      <div className={styles.toggles}>
        <button type="button" disabled={!own.trim()} onClick={() => write(own.trim())}>
          Keep reason
        </button>
        {held ? (
          <button type="button" onClick={() => write(null)}>
            It is to be done
          </button>
        ) : null}
      </div>
    </>
  );
}
