import { useEffect, useRef, useState } from "react";
import Button from "react-bootstrap/Button";
import Modal from "react-bootstrap/Modal";
import type { Test } from "../../api/catalogue";
import { classes } from "../../components/base/classes";
import { useStore } from "../../components/base/useStore";
import { FIRST, SECOND } from "../../state/device/lanes";
import { type Lane, placeKey } from "../../state/domain/fields";
import type { Bench } from "../../state/screen/bench";
import { changesFor, type Expected } from "./expected";
import styles from "./rest-sheet.module.css";

interface Props {
  bench: Bench;
  items: Expected[];
  onClose: () => void;
}

const NOTHING_LEFT = "Nothing is left here that could be written this way.";
const NOT_KNOWN_YET = "The reading has not come yet: what must wait is not known.";

/** Every value that would be written, by name: a half disc that is emptied leaves its value out. */
export default function RestSheet({ bench, items, onClose }: Props) {
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const readingHere = useStore(bench.state, (state) => state.reading !== null);
  const writes = useRef<HTMLButtonElement>(null);
  const kept = items.filter((item) => !left.has(placeKey(item.place)));
  const toggle = (item: Expected) => {
    const next = new Set(left);
    const key = placeKey(item.place);
    if (!next.delete(key)) next.add(key);
    setLeft(next);
  };
  // What can be written may come after the sheet: a button that could not be pressed took no focus.
  const ready = kept.length > 0;
  const someTaken = left.size > 0;
  useEffect(() => {
    if (ready && !someTaken) writes.current?.focus();
  }, [ready, someTaken]);
  const write = () => {
    if (kept.length > 0) bench.write(changesFor(kept));
    onClose();
  };
  return (
    <Modal show scrollable onHide={onClose} size="lg" aria-labelledby="rest-title">
      <Modal.Body className={styles.sheet}>
        <h2 id="rest-title">Rest as expected</h2>
        <p className="muted">
          You looked, and it was so. Numbers are never written here. Nothing that stands is changed.
        </p>
        {items.length === 0 ? <p>{readingHere ? NOTHING_LEFT : NOT_KNOWN_YET}</p> : null}
        {byTest(items).map(({ test, rows }) => (
          <fieldset key={test.code} aria-label={test.name}>
            <h3>{test.name}</h3>
            {rows.map((row) => (
              <div key={row.label} className={styles.row}>
                <Half item={row.sides.get(FIRST)} side={FIRST} left={left} onToggle={toggle} />
                <span className={styles.name}>
                  {row.label}: <strong>{row.said}</strong>
                  <Half item={row.sides.get(null)} side={null} left={left} onToggle={toggle} />
                </span>
                <Half item={row.sides.get(SECOND)} side={SECOND} left={left} onToggle={toggle} />
              </div>
            ))}
          </fieldset>
        ))}
      </Modal.Body>
      <Modal.Footer>
        <Button variant="quiet" onClick={onClose}>
          Cancel
        </Button>
        <Button ref={writes} onClick={write} disabled={!ready}>
          Write {kept.length} {kept.length === 1 ? "value" : "values"}
        </Button>
      </Modal.Footer>
    </Modal>
  );
}

interface HalfProps {
  item: Expected | undefined;
  side: Lane;
  left: ReadonlySet<string>;
  onToggle: (item: Expected) => void;
}

function Half({ item, side, left, onToggle }: HalfProps) {
  if (!item) return side === null ? null : <span />;
  const on = !left.has(placeKey(item.place));
  return (
    <button
      type="button"
      className={classes(styles.half, side ?? "both")}
      aria-pressed={on}
      aria-label={`${item.test.name}, ${item.label}, ${side ?? "both"}`}
      onClick={() => onToggle(item)}
    >
      <svg viewBox="-12 -12 24 24" aria-hidden="true" focusable="false">
        <path
          d={DISCS[side ?? "both"]}
          fill={on ? "currentColor" : "none"}
          stroke="currentColor"
          strokeWidth="2"
        />
      </svg>
    </button>
  );
}

const DISCS = {
  left: "M4 -9A9 9 0 0 0 4 9Z",
  right: "M-4 -9A9 9 0 0 1 -4 9Z",
  both: "M0 -9A9 9 0 0 0 0 9A9 9 0 0 0 0 -9Z",
};

interface Row {
  label: string;
  said: string;
  sides: Map<Lane, Expected>;
}

function byTest(items: readonly Expected[]): { test: Test; rows: Row[] }[] {
  const found = new Map<string, { test: Test; rows: Map<string, Row> }>();
  for (const item of items) {
    const { test, label, said } = item;
    const own = found.get(test.code) ?? { test, rows: new Map<string, Row>() };
    const row = own.rows.get(label) ?? { label, said, sides: new Map<Lane, Expected>() };
    row.sides.set(item.place.side, item);
    own.rows.set(label, row);
    found.set(test.code, own);
  }
  return [...found.values()].map(({ test, rows }) => ({ test, rows: [...rows.values()] }));
}
