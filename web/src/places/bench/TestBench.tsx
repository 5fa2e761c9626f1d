import { useCallback, useEffect, useMemo, useState } from "react";
import { flushSync } from "react-dom";
import type { Catalogue, Test } from "../../api/catalogue";
import type { Screen } from "../../api/screens";
import { useStore } from "../../components/useStore";
import type { Bench } from "../../state/bench";
import { entryLane, valueField } from "../../state/fields";
import { benchKey } from "../../state/keys";
import { type DialCode, dialOf } from "../../state/parse";
import {
  type Instead,
  other,
  type Question,
  questionAfter,
  questionsOf,
  stepsFor,
} from "../../state/questions";
import { AskBar } from "./AskBar";
import { BenchFooter } from "./BenchFooter";
import { EarlierRows } from "./EarlierRows";
import { focusQuestion } from "./focus";
import { KeyHelp } from "./KeyHelp";
import { LaneTools } from "./LaneTools";
import { SeenRow } from "./SeenRow";
import { SidePanel } from "./SidePanel";
import { StepFigures } from "./StepFigures";
import { StepRows } from "./StepRows";
import { StepTabs } from "./StepTabs";

interface Props {
  bench: Bench;
  test: Test;
  screen: Screen;
  catalogue: Catalogue;
  next: Test | null;
  onStop: (step: 1 | -1) => void;
}

/** One test in two lanes and a spine, drawn from the catalogue alone. */
export function TestBench({ bench, test, screen, catalogue, next, onStop }: Props) {
  const state = useStore(bench.state);
  const [instead, setInstead] = useState<Instead>(() => insteadInUse(bench, test));
  const [dials, setDials] = useState<ReadonlyMap<string, DialCode | null>>(new Map());
  const [helping, setHelping] = useState(false);
  const steps = useMemo(() => stepsFor(test, screen.schools), [test, screen.schools]);
  const questions = useMemo(
    () => questionsOf(test, steps, instead, screen.first_side),
    [test, steps, instead, screen.first_side],
  );
  const [now, setNow] = useState<Question | null>(() => firstOpen(bench, test, questions));
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
    const place = { test: test.code, side: now.side, field: valueField(now.measure) };
    if (!bench.commit(place)) return;
    const after = questionAfter(questions, now);
    if (after) ask(after);
    else document.getElementById("bench-next")?.focus();
  }, [bench, test, now, questions, ask]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: when the test opens; then the hand leads
  useEffect(() => {
    if (now) focusQuestion(now);
  }, []);
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      const key = benchKey(event);
      if (key === null || key === "accept") return;
      event.preventDefault();
      if (key === "next-step") toStep(stepIndex + 1);
      else if (key === "previous-step") toStep(stepIndex - 1);
      else if (key === "next-stop") onStop(1);
      else if (key === "previous-stop") onStop(-1);
      else if (key === "undo") bench.undo();
      else if (key === "help") setHelping((shown) => !shown);
      else if (now?.side) ask({ ...now, side: other(now.side) });
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  }, [toStep, stepIndex, onStop, bench, now, ask]);

  if (!step) return <p className="p-4">The schools of this screen ask nothing here.</p>;
  const dial = now ? dialFor(bench, test, now, dials) : null;
  return (
    <>
      <section className="bench-middle" aria-label={test.name}>
        <div className="bench-title">
          <h1>{test.name}</h1>
          <p className="muted">{test.purpose}</p>
        </div>
        {state.signed ? (
          <p className="caution" role="status">
            This screen is signed. What you enter here waits for an amendment.
          </p>
        ) : null}
        <StepTabs bench={bench} test={test} steps={steps} current={step.code} onStep={toStep} />
        {now ? (
          <AskBar
            test={test}
            question={now}
            dial={dial}
            onDial={(code) => setDials(new Map(dials).set(now.measure, code))}
          />
        ) : null}
        <StepFigures bench={bench} test={test} step={step} how={screen.schools.trial_value} />
        {now ? (
          <StepRows
            bench={bench}
            test={test}
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
        <EarlierRows bench={bench} test={test} steps={steps.slice(0, stepIndex)} />
        <SeenRow bench={bench} test={test} step={step} />
        <LaneTools bench={bench} test={test} screen={screen} now={now} sites={catalogue.sites} />
      </section>
      <SidePanel
        bench={bench}
        test={test}
        step={step}
        catalogue={catalogue}
        now={now}
        dial={dial}
        onAccept={accept}
      />
      <BenchFooter
        bench={bench}
        nextName={steps[stepIndex + 1]?.title ?? next?.name ?? "Reading"}
        onBack={() => toStep(stepIndex - 1)}
        onNext={() => toStep(stepIndex + 1)}
        onHelp={() => setHelping(true)}
      />
      <KeyHelp show={helping} onHide={() => setHelping(false)} />
    </>
  );
}

/** Where a value was recorded the other way of reading, that way is shown. */
function insteadInUse(bench: Bench, test: Test): Instead {
  const used = new Map<string, string>();
  for (const measure of test.measures) {
    if (!measure.instead_of) continue;
    const held = (["left", "right"] as const).some(
      (side) => bench.value({ test: test.code, side, field: valueField(measure.code) }) !== null,
    );
    if (held) used.set(measure.instead_of, measure.code);
  }
  return used;
}

function firstOpen(bench: Bench, test: Test, questions: Question[]): Question | null {
  const open = questions.find((question) => {
    const lane = question.side ?? entryLane(test, "left");
    return (
      bench.value({ test: test.code, side: lane, field: valueField(question.measure) }) === null
    );
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
  const field = valueField(question.measure);
  return dialOf(bench.value({ test: test.code, side: question.side, field }))?.dial ?? null;
}
