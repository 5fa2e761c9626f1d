import { useState } from "react";
import type { Measure, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import { classes } from "../../components/base/classes";
import { useStore } from "../../components/base/useStore";
import { hasBones } from "../../maps/drawings";
import { MapView } from "../../maps/MapView";
import { codesOn, viewName } from "../../maps/places";
import { edgeOf, FIRST, LANES, laneOf, SECOND } from "../../state/device/lanes";
import { type Lane, valueField } from "../../state/domain/fields";
import {
  afterPress,
  listed,
  MARK_WORDS,
  markOf,
  type Pressing,
  restClear,
} from "../../state/domain/pressing";
import type { Question } from "../../state/domain/questions";
import { SIDE_LETTER } from "../../state/domain/wording";
import type { Bench } from "../../state/screen/bench";
import { MarkLegend } from "./MarkLegend";
import styles from "./map-row.module.css";
import { useRestOfMap } from "./useRestOfMap";

interface Props {
  bench: Bench;
  test: Test;
  entryKey: string;
  measure: Measure;
  step: string;
  now: Question;
  onNow: (question: Question) => void;
}

/** A list answered on drawings: the same view in both lanes, its name and counts in the spine. */
export default function MapRow(props: Props) {
  const { measure, step, now, onNow } = props;
  const views = measure.map?.views ?? [];
  const [at, setAt] = useState(0);
  const [bones, setBones] = useState(true);
  const [large, setLarge] = useState(false);
  const view = views[at] ?? views[0] ?? "";
  const onMap = useOnMap(props);
  const codes = codesOn(measure.map?.points ?? "", view).filter((code) => onMap.all.includes(code));
  const asked = now.side ?? "left";
  useRestOfMap(() => onMap.rest(codes, asked));
  const lane = (side: Side) => (
    // The lane that leans is swapped by a tap anywhere on it; its buttons do the same for the keyboard.
    // biome-ignore lint/a11y/noStaticElementInteractions: a larger target for the same buttons
    // biome-ignore lint/a11y/useKeyWithClickEvents: the buttons inside take the keys
    <div
      className={classes(
        laneOf(side),
        styles.lane,
        asked === side && styles.asked,
        large && styles.large,
      )}
      onClick={() => onNow({ step, measure: measure.code, side, key: props.entryKey })}
    >
      <MapView
        view={view}
        side={side}
        list={measure.map?.points ?? ""}
        bones={bones}
        points={codes.map((code) => onMap.point(code, side))}
        onPoint={(code) => onMap.tap(code, side)}
      />
    </div>
  );
  return (
    <section className={styles.maps} aria-label={measure.label}>
      <fieldset className={styles.views} aria-label="Views">
        <select
          aria-label="View"
          value={at}
          onChange={(event) => setAt(Number(event.target.value))}
        >
          {views.map((each, index) => (
            <option key={each} value={index}>
              {viewName(each)}
            </option>
          ))}
        </select>
        {views.map((each, index) => (
          <button
            key={each}
            type="button"
            className={styles.view}
            aria-pressed={index === at}
            onClick={() => setAt(index)}
          >
            {viewName(each)}
          </button>
        ))}
        {hasBones(view) ? (
          <button type="button" aria-pressed={bones} onClick={() => setBones(!bones)}>
            Bones
          </button>
        ) : null}
        <button type="button" aria-pressed={large} onClick={() => setLarge(!large)}>
          Larger
        </button>
      </fieldset>
      <div className={classes("lanes", styles["map-lanes"], styles[`leans-${edgeOf(asked)}`])}>
        {lane(FIRST)}
        <div className="spine">
          <strong>{viewName(view)}</strong>
          <span className={styles.counts}>
            <span className={FIRST}>{onMap.count(codes, FIRST)}</span>
            <span className={SECOND}>{onMap.count(codes, SECOND)}</span>
          </span>
          <span className="muted small">of {codes.length}</span>
          <Found points={codes} point={onMap.point} />
        </div>
        {lane(SECOND)}
      </div>
      <MarkLegend marks={onMap.marks} />
      <div className={classes("lanes", styles.rest)}>
        {LANES.map((side) => (
          <div key={side} className={classes(laneOf(side), styles["rest-lane"])}>
            <button
              type="button"
              className={classes("plate", side)}
              aria-label={`${onMap.restWords}, ${side}`}
              onClick={() => onMap.rest(codes, side)}
            >
              {onMap.restWords}
            </button>
          </div>
        ))}
      </div>
    </section>
  );
}

/** What hurts, or was seen, in words: the drawing alone would leave it to the eye. */
function Found({ points, point }: { points: readonly string[]; point: OnMap["point"] }) {
  const found = LANES.flatMap((side) =>
    points
      .map((code) => ({ side, ...point(code, side) }))
      .filter(({ mark }) => mark === "tender" || mark === "sore" || mark === "on"),
  );
  return (
    <ul className={styles.found}>
      {found.map(({ side, code, label, says }) => (
        <li key={`${side} ${code}`}>
          <strong className={side}>
            {SIDE_LETTER[side]} {label}
          </strong>{" "}
          {says.replace("pressed, ", "")}
        </li>
      ))}
    </ul>
  );
}

type OnMap = ReturnType<typeof useOnMap>;

/** What stands on the map and what a tap writes: with a list of what was pressed, or without. */
function useOnMap({ bench, test, entryKey, measure }: Props) {
  useStore(bench.state);
  const all = measure.choices.map((choice) => choice.code);
  const pressedCode = measure.map?.pressed ?? null;
  const place = (side: Lane, code: string) => ({
    test: test.code,
    side,
    key: entryKey,
    field: valueField(code),
  });
  const held = (side: Side): Pressing => ({
    tender: listed(bench.value(place(side, measure.code))),
    pressed: pressedCode === null ? null : listed(bench.value(place(side, pressedCode))),
  });
  const write = (side: Side, next: Pressing) => {
    const changes = [{ ...place(side, measure.code), value: copied(next.tender) }];
    if (pressedCode !== null) {
      changes.push({ ...place(side, pressedCode), value: copied(next.pressed) });
    }
    bench.write(changes);
  };
  const label = (code: string) =>
    measure.choices.find((choice) => choice.code === code)?.label ?? code;
  if (pressedCode === null) {
    const on = (side: Side) => listed(bench.value(place(side, measure.code))) ?? [];
    const said = (side: Side) => listed(bench.value(place(side, measure.code))) !== null;
    return {
      all,
      marks: SEEN_MARKS,
      restWords: "None of these",
      point: (code: string, side: Side) => {
        const there = on(side).includes(code);
        const mark = there ? "on" : said(side) ? "clear" : "open";
        return {
          code,
          label: label(code),
          mark,
          says: there ? "seen" : said(side) ? "not seen" : "not said yet",
        };
      },
      tap: (code: string, side: Side) => {
        const left = on(side).filter((other) => other !== code);
        const next = on(side).includes(code) ? left : [...left, code];
        write(side, { tender: next.length > 0 ? next : null, pressed: null });
      },
      rest: (_codes: readonly string[], side: Side) => write(side, { tender: [], pressed: null }),
      count: (codes: readonly string[], side: Side) =>
        codes.filter((code) => on(side).includes(code)).length,
    };
  }
  return {
    all,
    marks: PRESSED_MARKS,
    restWords: "Rest pressed, not tender",
    point: (code: string, side: Side) => {
      const mark = markOf(code, held(side), all);
      return { code, label: label(code), mark, says: MARK_WORDS[mark] };
    },
    tap: (code: string, side: Side) => write(side, afterPress(code, held(side), all)),
    rest: (codes: readonly string[], side: Side) => write(side, restClear(codes, held(side), all)),
    count: (codes: readonly string[], side: Side) =>
      codes.filter((code) => ["clear", "tender"].includes(markOf(code, held(side), all))).length,
  };
}

const SEEN_MARKS = [
  { mark: "open", says: "not said yet" },
  { mark: "clear", says: "not seen" },
  { mark: "on", says: "seen" },
];
const PRESSED_MARKS = Object.entries(MARK_WORDS).map(([mark, says]) => ({ mark, says }));

const copied = (list: readonly string[] | null): string[] | null =>
  list === null ? null : [...list];
