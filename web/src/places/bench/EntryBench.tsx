import { type ReactNode, useCallback, useEffect, useMemo, useState } from "react";
import { flushSync } from "react-dom";
import type { Catalogue, Step, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Screen } from "../../api/screens";
import { useStore } from "../../components/base/useStore";
import { useBenchKeys } from "../../components/screen/useBenchKeys";
import { entryLane, isValueField, placeOf, valueField } from "../../state/domain/fields";
import { controlOf, kindOf } from "../../state/domain/kinds";
import { type DialCode, dialOf } from "../../state/domain/parse";
import { listed, pressingWords } from "../../state/domain/pressing";
import {
  type Instead,
  keysOf,
  measureOf,
  other,
  type Question,
  questionAfter,
  questionsOf,
  standsFor,
} from "../../state/domain/questions";
import { SIDE_LETTER } from "../../state/domain/wording";
import type { Bench } from "../../state/screen/bench";
import { askedHere } from "../../state/screen/others";
import { AskBar } from "./AskBar";
import { BenchFooter } from "./BenchFooter";
import { hurtsNow, startOrStop, stopClock } from "./clock";
import { countOne } from "./counting";
import { EarlierRows } from "./EarlierRows";
import { focusQuestion } from "./focus";
import { HeldRow } from "./HeldRow";
import { LaneTools } from "./LaneTools";
import layout from "./layout.module.css";
import { PainAsk, PainRow } from "./PainRow";
import { ScoreRow } from "./ScoreRow";
import { SeenRow } from "./SeenRow";
import { SidePanel } from "./SidePanel";
import { StepFigures } from "./StepFigures";
import { StepRows } from "./StepRows";
import { StepTabs } from "./StepTabs";
import { useFirstFocus } from "./useFirstFocus";

export interface TestBenchProps {
  bench: Bench;
  test: Test;
  /** In side-lying the side that is examined at this stop; the other is another stop. */
  lying: Side | null;
  screen: Screen;
  catalogue: Catalogue;
  /** The tests of this screen, in their order. */
  tests: Test[];
  next: Test | null;
  onStop: (step: 1 | -1) => void;
}

interface Props extends TestBenchProps {
  steps: Step[];
  /** What stands above the rows. */
  top: ReactNode;
}

/** The questions of one test, row by row; of a keyed one, each bone, toe, space or position in turn. */
export function EntryBench(props: Props) {
  const { bench, test, tests, lying, screen, catalogue, next, onStop, steps, top } = props;
  // The dial in use follows the value that stands.
  useStore(bench.state, (state) => state.fields);
  useStore(bench.state, (state) => state.waiting);
  const [instead, setInstead] = useState<Instead>(() => insteadInUse(bench, test));
  const [dials, setDials] = useState<ReadonlyMap<string, DialCode | null>>(new Map());
  const unsaid = standsAt(bench, test, "");
  const keys = useMemo(() => keysOf(test, () => unsaid), [test, unsaid]);
  const questions = useMemo(
    () =>
      questionsOf(test, steps, instead, screen.first_side, keys).filter(
        ({ side }) => lying === null || side === null || side === lying,
      ),
    [test, steps, instead, screen.first_side, keys, lying],
  );
  const [now, setNow] = useState<Question | null>(() => firstOpen(bench, test, questions));
  const [chosen, setChosen] = useState(keys[0]?.key ?? "");
  const entryKey = now?.key ?? chosen;
  const stepIndex = Math.max(
    0,
    steps.findIndex((step) => step.code === now?.step),
  );
  const step = steps[stepIndex];

  const ask = useCallback((question: Question) => {
    // At once: a fast hand types the next number before the next frame.
    flushSync(() => setNow(question));
    focusQuestion(question);
  }, []);
  const toStep = useCallback(
    (to: number) => {
      const wanted = steps[to];
      const first = questions.find((question) => question.step === wanted?.code);
      if (first) ask(first);
      else if (to >= steps.length) onStop(1);
      else if (to < 0) onStop(-1);
    },
    [steps, questions, ask, onStop],
  );
  const accept = useCallback(() => {
    if (!now) return;
    const field = valueField(now.measure);
    const place = { test: test.code, side: now.side, key: now.key, field };
    if (!bench.commit(place)) return;
    const after = questionAfter(questions, now);
    if (after) ask(after);
    else document.getElementById("bench-next")?.focus();
  }, [bench, test, now, questions, ask]);

  const askedSide = now?.side ?? null;
  useEffect(() => askedHere.setState({ test: test.code, side: askedSide }), [test.code, askedSide]);
  useFirstFocus(now);
  const place = now && placeOfQuestion(test, now);
  const measure = now && measureOf(test, now.measure);
  const take = () => {
    if (!place || !measure) return;
    if (measure.clock) startOrStop(bench, place, measure);
    else if (controlOf(measure) === "counter") countOne(bench, place, measure, 1);
  };
  useBenchKeys((key) => {
    if (OTHERS.has(key)) return false;
    // Page Down does what the pine button says: while a clock runs it stops it.
    if (key === "next-step") stopClock(bench) || toStep(stepIndex + 1);
    else if (key === "previous-step") toStep(stepIndex - 1);
    else if (key === "next-stop") onStop(1);
    else if (key === "previous-stop") onStop(-1);
    else if (key === "undo") bench.undo();
    else if (key === "take") take();
    else if (key === "hurts") place && measure && hurtsNow(bench, place, measure);
    else if (now?.side) ask({ ...now, side: other(now.side) });
    return true;
  });

  if (!step) return null;
  const dial = now ? dialFor(bench, test, now, dials) : null;
  const own = { bench, test, entryKey };
  const keyed = keys.find(({ key }) => key === entryKey)?.label ?? "";
  return (
    <>
      <section className={layout["bench-middle"]} aria-label={test.name}>
        {top}
        <StepTabs {...own} steps={steps} current={step.code} onStep={toStep} />
        {now ? (
          <AskBar
            test={test}
            question={now}
            of={keyed}
            beside={besideOf(bench, test, now, screen.schools.trial_value)}
            dial={dial}
            onDial={(code) => setDials(new Map(dials).set(now.measure, code))}
          />
        ) : null}
        {now ? null : <PainAsk {...own} first={screen.first_side} />}
        <HeldRow bench={bench} test={test} catalogue={catalogue} screen={screen} />
        <ScoreRow {...own} />
        <StepFigures {...own} step={step} how={screen.schools.trial_value} />
        {now ? (
          <StepRows
            bench={bench}
            test={test}
            keys={keys}
            step={step}
            instead={instead}
            now={now}
            dialOf={(question) => dialFor(bench, test, question, dials)}
            how={screen.schools.trial_value}
            onNow={setNow}
            onAccept={accept}
            onInstead={(base, code) => setInstead(new Map(instead).set(base, code))}
          />
        ) : null}
        {now
          ? null
          : keys.map(({ key, label }) => (
              <PainRow key={key} {...own} entryKey={key} of={label} onNow={() => setChosen(key)} />
            ))}
        <EarlierRows {...own} steps={steps.slice(0, stepIndex)} how={screen.schools.trial_value} />
        <SeenRow {...own} step={step} />
        <LaneTools {...own} of={keyed} screen={screen} now={now} sites={catalogue.sites} />
      </section>
      <SidePanel
        {...own}
        step={step}
        catalogue={catalogue}
        now={now}
        dial={dial}
        onAccept={accept}
      />
      <BenchFooter
        {...{ bench, test, tests, screen }}
        nextName={steps[stepIndex + 1]?.title ?? next?.name ?? "Reading"}
        onBack={() => toStep(stepIndex - 1)}
        onNext={() => stopClock(bench) || toStep(stepIndex + 1)}
      />
    </>
  );
}

// Heard where they act: in the field, in the footer, at the map.
const OTHERS: ReadonlySet<string> = new Set(["accept", "help", "rest-expected", "rest-of-map"]);

function placeOfQuestion(test: Test, { side, key, measure }: Question) {
  return { test: test.code, side, key, field: valueField(measure) };
}

/** Whether anything of a test stands at a key. */
function standsAt(bench: Bench, test: Test, key: string): boolean {
  const { fields, waiting } = bench.state.getState();
  return [...fields.keys(), ...waiting.keys()].some((name) => {
    const place = placeOf(name);
    const recorded = isValueField(place.field) || place.field === "pain";
    return place.test === test.code && place.key === key && recorded && bench.value(place) !== null;
  });
}

/** Where a value was recorded the other way of reading, that way is shown. */
function insteadInUse(bench: Bench, test: Test): Instead {
  const used = new Map<string, string>();
  for (const measure of test.measures) {
    const base = standsFor(measure);
    if (!base) continue;
    const field = valueField(measure.code);
    const held = (["left", "right"] as const).some(
      (side) => bench.value({ test: test.code, side, key: "", field }) !== null,
    );
    if (held) used.set(base, measure.code);
  }
  return used;
}

/** What the other side has of the same question. */
function besideOf(
  bench: Bench,
  test: Test,
  now: Question,
  how: "mean" | "median" = "mean",
): string {
  if (!now.side) return "";
  const side = other(now.side);
  const measure = measureOf(test, now.measure);
  const held = (code: string) =>
    bench.value({ test: test.code, side, key: now.key, field: valueField(code) });
  const value = held(measure.code);
  const pressed = measure.map?.pressed;
  if (pressed && value !== null) {
    const all = measure.choices.map((choice) => choice.code);
    const name = (code: string) =>
      measure.choices.find((choice) => choice.code === code)?.label ?? code;
    const pressing = { tender: listed(value), pressed: listed(held(pressed)) };
    return `${SIDE_LETTER[side]} ${pressingWords(pressing, all, name)}`;
  }
  const said = value === null ? "not yet" : kindOf(measure).said(value, measure, how);
  return `${SIDE_LETTER[side]} ${said}`;
}

function firstOpen(bench: Bench, test: Test, questions: Question[]): Question | null {
  const open = questions.find((question) => {
    const lane = question.side ?? entryLane(test, "left");
    const field = valueField(question.measure);
    return bench.value({ test: test.code, side: lane, key: question.key, field }) === null;
  });
  return open ?? questions[0] ?? null;
}

/** The dial chosen for a measure, or the one its value was read from. */
function dialFor(
  bench: Bench,
  test: Test,
  question: Question,
  chosen: ReadonlyMap<string, DialCode | null>,
): DialCode | null {
  const said = chosen.get(question.measure);
  if (said !== undefined) return said;
  return dialOf(bench.value(placeOfQuestion(test, question)))?.dial ?? null;
}
