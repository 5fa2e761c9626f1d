import { useState } from "react";
import type { Test } from "../../api/catalogue";
import type { Lane } from "../../state/domain/fields";
import type { Bench } from "../../state/screen/bench";
import styles from "./bench.module.css";

interface Props {
  bench: Bench;
  test: Test;
  entryKey: string;
  lane: Lane;
  onClose: () => void;
}

/** A line in the examiner's own words. Kept on this device while it is written. */
export function NoteCard({ bench, test, entryKey, lane, onClose }: Props) {
  const place = { test: test.code, side: lane, key: entryKey, field: "note" };
  const kept = bench.textDraft(place);
  const [text, setText] = useState(kept ?? String(bench.value(place) ?? ""));
  const save = () => {
    bench.write([{ ...place, value: text.trim() || null }]);
    onClose();
  };
  return (
    <>
      <label className={styles["note-label"]}>
        Note
        <textarea
          rows={3}
          maxLength={2000}
          value={text}
          onChange={(event) => {
            setText(event.target.value);
            bench.keepText(place, event.target.value);
          }}
        />
      </label>
      <button type="button" className={styles["card-close"]} onClick={save}>
        Keep note
      </button>
    </>
  );
}
