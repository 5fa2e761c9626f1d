import { Problem } from "../api/problem";

/** What went wrong, in words; faults that belong to no field of the form are listed. */
export function ProblemNote({ error, known = [] }: { error: unknown; known?: readonly string[] }) {
  if (!error) return null;
  const problem = error instanceof Problem ? error : new Problem(0, "unexpected", String(error));
  const loose = problem.faults.filter((fault) => !known.includes(fault.path));
  return (
    <div role="alert" className="fault">
      {problem.message}
      {loose.length > 0 ? (
        <ul>
          {loose.slice(0, 12).map((fault) => (
            <li key={`${fault.path} ${fault.problem}`}>
              {fault.path}: {fault.problem}
            </li>
          ))}
          {loose.length > 12 ? <li>and {loose.length - 12} more</li> : null}
        </ul>
      ) : null}
    </div>
  );
}

/** The fault at one field, if the server named it. */
export function faultAt(error: unknown, path: string): string | null {
  if (!(error instanceof Problem)) return null;
  return error.faults.find((fault) => fault.path === path)?.problem ?? null;
}
