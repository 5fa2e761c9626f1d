import type { Catalogue, Step, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import { classes } from "../../components/base/classes";
import { useStore } from "../../components/base/useStore";
import { Figure } from "../../figures/Figure";
import { HandsLegend } from "../../figures/HandsLegend";
import { touching } from "../../state/device/preferences";
import { placeWords } from "../../state/device/saving";
import { isValueField, placeOf } from "../../state/domain/fields";
import { kindOf } from "../../state/domain/kinds";
import type { DialCode } from "../../state/domain/parse";
import { measureOf, type Question } from "../../state/domain/questions";
import type { Bench } from "../../state/screen/bench";
import styles from "./bench.module.css";
import layout from "./layout.module.css";
import { NumberPad } from "./NumberPad";
import { ReadsSoFar } from "./ReadsSoFar";

interface Props {
  bench: Bench;
  test: Test;
  entryKey: string;
  step: Step;
  catalogue: Catalogue;
  now: Question | null;
  dial: DialCode | null;
  onAccept: () => void;
}

/** Set-up, traps and what it reads as so far; the number pad instead of the set-up by touch. */
export function SidePanel(props: Props) {
  const { bench, test, step, catalogue, now } = props;
  const byTouch = useStore(touching);
  const measure = now ? measureOf(test, now.measure) : null;
  const typed = measure && kindOf(measure).asked === "number";
  return (
    <aside
      className={classes("panel", layout["bench-side"])}
      aria-label="Set-up and reading so far"
      data-pad={(byTouch && typed) || undefined}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: it may scroll, and keys must be able to
      tabIndex={0}
    >
      {byTouch && typed && now ? (
        <NumberPad {...props} measure={measure} now={now} />
      ) : (
        <SetUp test={test} step={step} side={now?.side ?? "left"} />
      )}
      <NotTaken bench={bench} />
      <ReadsSoFar bench={bench} catalogue={catalogue} />
    </aside>
  );
}

const NOTHING_READ = {};

function SetUp({ test, step, side }: { test: Test; step: Step; side: Side }) {
  const hands = step.figure?.hands ?? [];
  return (
    <>
      <h2 className="panel-title">Set up</h2>
      <ol className={styles["set-up"]}>
        {step.setup.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ol>
      {hands.length > 0 ? (
        <div className={styles.hands}>
          <Figure test={test} step={step} side={side} numbers={NOTHING_READ} hands />
          <HandsLegend hands={hands} />
        </div>
      ) : null}
      {test.traps.map((line) => (
        <p key={line} className="muted">
          <strong>Watch for:</strong> {line}
        </p>
      ))}
      {test.score?.besides ? <p className="muted small">{test.score.besides}</p> : null}
      {test.cautions.map((line) => (
        <p key={line} className="caution">
          {line}
        </p>
      ))}
    </>
  );
}

/** What the server would not take and no field shows. */
function NotTaken({ bench }: { bench: Bench }) {
  const { drafts } = useStore(bench.state);
  const refused = [...drafts].filter(([key, draft]) => {
    return draft.problem !== null && !isValueField(placeOf(key).field);
  });
  if (refused.length === 0) return null;
  return (
    <div role="alert">
      <h2 className="panel-title fault">Not taken</h2>
      {refused.map(([key, draft]) => (
        <p key={key}>
          {placeWords(key)}: {draft.text}. {draft.problem}{" "}
          <button type="button" className={styles["spine-link"]} onClick={() => bench.discard(key)}>
            Discard
          </button>
        </p>
      ))}
    </div>
  );
}
