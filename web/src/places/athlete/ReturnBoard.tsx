import { useQuery } from "@tanstack/react-query";
import Button from "react-bootstrap/Button";
import { Link } from "react-router";
import { returnTestsQuery } from "../../api/course";
import { useBegin } from "../../components/controls/useBegin";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { SideMark } from "../../components/marks/SideMark";
import { stepTo } from "../../state/domain/addresses";
import { criterionState, criterionWords, dayWords } from "../../state/domain/wording";
import {
  type BoardRow,
  byWords,
  type Criterion,
  criteriaOf,
  type HeldAgainst,
  heldWords,
  leftToTest,
  limitWords,
  meterOf,
  type ReturnTest,
  sideOf,
} from "./board";
import type { AthleteParts } from "./parts";
import styles from "./return-board.module.css";

const MARKS = { met: "✓", not_met: "✕", not_tested: "?" } as const;

/** Each criterion of the return over time: met, not met or not tested, and by how much. You decide. */
export function ReturnBoard(props: AthleteParts) {
  const { athlete, catalogue, course } = props;
  const asked = course.screens.some((screen) => screen.purpose === "return_to_sport");
  const tests = useQuery({ ...returnTestsQuery(athlete.id), enabled: asked });
  if (!asked) return null;
  if (tests.error && !tests.data) return <ProblemNote error={tests.error} />;
  const found = tests.data ?? [];
  const criteria = criteriaOf(found);
  const newest = found.at(-1);
  const side = sideOf(criteria);
  return (
    <section className={styles.board} aria-label="Ready to return">
      <header className={styles.head}>
        <h2>
          Ready to return {side ? <SideMark side={side} /> : null}{" "}
          <span className="muted">you decide</span>
        </h2>
        {newest && !athlete.archived ? (
          <Left {...props} criteria={criteria} newest={newest} />
        ) : null}
      </header>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: it may scroll, and keys must be able to */}
      <section className={styles.scrolled} tabIndex={0} aria-label="Criteria over time">
        <table>
          <thead>
            <tr>
              <th scope="col">
                <span className="only-read-aloud">Criterion</span>
              </th>
              {found.map((test) => (
                <th key={test.screen} scope="col">
                  <Link to={stepTo(test.screen, "reading")}>{dayWords(test.date)}</Link>
                  {test.state === "open" ? <span className="muted"> open</span> : null}
                </th>
              ))}
              <th scope="col">against the other side</th>
              <th scope="col">against the own baseline</th>
            </tr>
          </thead>
          <tbody>
            {criteria.map(({ code, over, newest: row }) => (
              <tr key={code} data-state={row.state}>
                <th scope="row">{criterionWords(catalogue, code)}</th>
                {over.map((each, at) => (
                  <td key={found[at]?.screen}>
                    <State row={each} />
                  </td>
                ))}
                <td>
                  <HeldCell held={row.other} catalogue={catalogue} />
                </td>
                <td>
                  <HeldCell held={row.own} catalogue={catalogue} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </section>
  );
}

function State({ row }: { row: BoardRow | null }) {
  if (!row) return <span className="muted">not read</span>;
  return (
    <span className={styles.state} data-state={row.state}>
      <b aria-hidden="true">{MARKS[row.state]}</b>
      <span className="only-read-aloud">{criterionState(row.state)}</span>
      {row.other ? <span>{byWords(row.other)}</span> : null}
    </span>
  );
}

function HeldCell({
  held,
  catalogue,
}: { held: HeldAgainst | null } & Pick<AthleteParts, "catalogue">) {
  if (!held) {
    return (
      <span className="muted">
        <span aria-hidden="true">–</span>
        <span className="only-read-aloud">nothing to hold it against</span>
      </span>
    );
  }
  const { zone, at } = meterOf(held);
  return (
    <div className={styles.held}>
      <strong>{byWords(held)}</strong> <span className="muted">{limitWords(held)}</span>
      <svg viewBox="0 0 100 8" preserveAspectRatio="none" aria-hidden="true" focusable="false">
        <rect className={styles.scale} x="0" y="3" width="100" height="2" />
        <rect className={styles.zone} x={zone[0]} y="0" width={zone[1] - zone[0]} height="8" />
        <rect className={styles.at} x={Math.min(at, 98.5)} y="0" width="1.5" height="8" />
      </svg>
      <span className="muted small">{heldWords(held, catalogue)}</span>
    </div>
  );
}

interface LeftProps extends AthleteParts {
  criteria: Criterion[];
  newest: ReturnTest;
}

/** What is left to test as a route, in one tap; an open test is gone on with. */
function Left({ athlete, criteria, newest }: LeftProps) {
  const begin = useBegin(athlete.id);
  const { open, again } = leftToTest(criteria);
  const go = (planned: string[]) =>
    begin.mutate({ id: crypto.randomUUID(), purpose: "return_to_sport", planned });
  if (newest.state === "open") {
    return <Link to={stepTo(newest.screen, "bench")}>Go on with the open test</Link>;
  }
  return (
    <div className={styles.left}>
      {open.length > 0 ? (
        <Button disabled={begin.isPending} onClick={() => go(open)}>
          Test what is left, {tests(open)}
        </Button>
      ) : null}
      {again.length > 0 ? (
        <Button
          variant={open.length > 0 ? "quiet" : "primary"}
          disabled={begin.isPending}
          onClick={() => go([...new Set([...again, ...open])])}
        >
          And what was not met, {tests([...new Set([...again, ...open])])}
        </Button>
      ) : null}
      {open.length + again.length === 0 ? <span>Nothing is left to test.</span> : null}
      <ProblemNote error={begin.error} />
    </div>
  );
}

const tests = (codes: string[]): string =>
  `${codes.length} ${codes.length === 1 ? "test" : "tests"}`;
