import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { Catalogue, Step, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { Rungs } from "../../components/marks/Rungs";
import { SideMark } from "../../components/marks/SideMark";
import { Tally } from "../../components/marks/Tally";
import { Figure } from "../../figures/Figure";
import { HandsLegend } from "../../figures/HandsLegend";
import { TESTS } from "../../state/domain/addresses";
import { ratioWords } from "../../state/domain/rungs";
import { capital, flagName, gateWords, readable } from "../../state/domain/wording";
import { clockWords, type HowRead, ladderOf, readRows, recordedAs } from "./look_up";
import { howReadQuery } from "./queries";
import styles from "./tests.module.css";

interface Props {
  test: Test;
  catalogue: Catalogue;
  query: string;
}

const NOTHING_READ = {};

/** One test: how it is set up, what is written down, how it is read, how much it can say. */
export function TestPage({ test, catalogue, query }: Props) {
  const found = useQuery(howReadQuery(test.code));
  const [side, setSide] = useState<Side>("left");
  return (
    <article className={styles.page} aria-label={test.name}>
      <Link className={styles.back} to={`${TESTS.path}${query ? `?${query}` : ""}`}>
        All tests
      </Link>
      <h2>
        {test.name} <span>{test.purpose}</span>
      </h2>
      {test.other_names.length > 0 ? (
        <p className="muted">Also: {test.other_names.join(", ")}.</p>
      ) : null}
      <div className={styles["which-side"]}>
        <SideMark side={side} large />
        <button
          type="button"
          className="btn btn-quiet"
          onClick={() => setSide(side === "left" ? "right" : "left")}
        >
          Show {side === "left" ? "right" : "left"}
        </button>
        <span className="muted">
          {readable(test.position)} · {clockWords(test.seconds)} ·{" "}
          {test.sides === "both" ? "both sides at once" : "each side, the sound one first"}
        </span>
      </div>
      {test.steps.map((step) => (
        <SetUp key={step.code} test={test} step={step} side={side} />
      ))}
      <Warnings test={test} catalogue={catalogue} found={found.data ?? null} />
      <ProblemNote error={found.error} />
      <div className={styles.columns}>
        <Recorded test={test} />
        {found.data ? (
          <>
            <IsRead {...{ test, catalogue }} found={found.data} />
            <CanSay {...{ catalogue }} found={found.data} />
          </>
        ) : (
          <p className="muted">Trying out how it is read.</p>
        )}
      </div>
    </article>
  );
}

function SetUp({ test, step, side }: { test: Test; step: Step; side: Side }) {
  const hands = step.figure?.hands ?? [];
  return (
    <section className={styles.setup} aria-label={`Set up: ${step.title}`}>
      {step.figure ? (
        <div className={`lane-${side} ${side} ${styles.picture}`}>
          <Figure test={test} step={step} side={side} numbers={NOTHING_READ} hands />
          <HandsLegend hands={hands} />
        </div>
      ) : null}
      <div>
        <h3>{test.steps.length > 1 ? step.title : "Set up"}</h3>
        <ol>
          {step.setup.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ol>
      </div>
    </section>
  );
}

/** What misleads, what to be careful of, and what holds it. */
function Warnings({
  test,
  catalogue,
  found,
}: {
  test: Test;
  catalogue: Catalogue;
  found: HowRead | null;
}) {
  const spoils = test.seen.filter((seen) => seen.flatters.length + seen.voids.length > 0);
  return (
    <section className={styles.warnings} aria-label="Watch for">
      {test.traps.map((line) => (
        <p key={line} className="caution">
          {line}
        </p>
      ))}
      {test.cautions.map((line) => (
        <p key={line} className="caution">
          {line}
        </p>
      ))}
      {spoils.length > 0 ? (
        <p>
          <strong>Spoils the value:</strong>{" "}
          {spoils.map((seen) => seen.label.toLowerCase()).join(", ")}.
        </p>
      ) : null}
      {found && found.held_by.length > 0 ? (
        <p>
          <strong>Held while:</strong>{" "}
          {found.held_by.map((gate) => gateWords(catalogue, gate)).join(" ")}
        </p>
      ) : null}
    </section>
  );
}

function Recorded({ test }: { test: Test }) {
  return (
    <section aria-label="What is recorded">
      <h3>What is recorded</h3>
      <dl>
        {test.measures.map((measure) => (
          <div key={measure.code}>
            <dt>{measure.label}</dt>
            <dd className="muted">{recordedAs(measure)}</dd>
          </div>
        ))}
        <div>
          <dt>Pain and its place</dt>
          <dd className="muted">where it changes the meaning</dd>
        </div>
      </dl>
    </section>
  );
}

function IsRead({ test, catalogue, found }: { test: Test; catalogue: Catalogue; found: HowRead }) {
  const rows = readRows(found, test, catalogue);
  return (
    <section aria-label="How it is read">
      <h3>How it is read, by itself</h3>
      {rows.length === 0 ? (
        <p>By itself it flags nothing: it speaks together with the story or with other tests.</p>
      ) : null}
      <table>
        <tbody>
          {rows.map((row) => (
            <tr key={row.key}>
              <td>{row.when}</td>
              <td>
                {row.strength ? <Tally strength={row.strength} /> : "speaks against"}
                <div>
                  {flagName(catalogue, row.code)}{" "}
                  <span className="muted">{row.rules.join(", ")}</span>
                </div>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="muted small">
        Tried out on an adult with a gradual complaint, beside a sound other side. Story, days since
        an injury and other tests make it more or less.
      </p>
    </section>
  );
}

function CanSay({ catalogue, found }: { catalogue: Catalogue; found: HowRead }) {
  const signs = [...new Set(found.says.map((each) => each.sign + each.source))];
  return (
    <section aria-label="How much it can say">
      <h3>How much it can say</h3>
      {signs.length === 0 ? <p>No figure is published that we know of.</p> : null}
      {signs.map((sign) => {
        const own = found.says.filter((each) => each.sign + each.source === sign);
        const [first] = own;
        return first ? (
          <div key={sign} className={styles.says}>
            <Rungs shown={ladderOf(own)} />
            <div>
              <strong>{first.sign}</strong>
              {own.map((each) => (
                <div key={each.result}>
                  {each.result}: {ratioWords(each)}
                </div>
              ))}
              <div className="muted small">
                {first.codes.map((code) => flagName(catalogue, code)).join(", ")} · {first.source}
              </div>
            </div>
          </div>
        ) : null;
      })}
      <p className="muted small">
        {capital(found.label)}. Rungs up: what a positive adds; down: what a negative takes away;
        broken: by study.
      </p>
    </section>
  );
}
