import { Problem } from "../../api/problem";

interface Props {
  error: unknown;
  known?: readonly string[];
  /** What changed since something was shown, in words. */
  words?: (part: string) => string;
}

const MOST_SHOWN = 12;

/** What went wrong, in words; faults that belong to no field of the form are listed. */
export function ProblemNote({ error, known = [], words = (part) => part }: Props) {
  if (!error) return null;
  const problem = error instanceof Problem ? error : new Problem(0, "unexpected", String(error));
  const loose = problem.faults.filter((fault) => !known.includes(fault.path));
  return (
    <div role="alert" className="fault">
      {problem.message}
      {problem.changed.length > 0 ? ` Changed: ${problem.changed.map(words).join(", ")}.` : ""}
      {loose.length > 0 ? (
        <ul>
          {loose.slice(0, MOST_SHOWN).map((fault) => (
            <li key={`${fault.path} ${fault.problem}`}>
              {/* A place within a record's entries is for files; its words name the test. */}
              {problem.code === "unreadable" ? fault.problem : `${fault.path}: ${fault.problem}`}
            </li>
          ))}
          {loose.length > MOST_SHOWN ? <li>and {loose.length - MOST_SHOWN} more</li> : null}
        </ul>
      ) : null}
    </div>
  );
}
