import { Problem } from "../../api/problem";
import { ProblemNote } from "../marks/ProblemNote";
import { NothingHere } from "./NothingHere";
import { Shell } from "./Shell";

/** A place that cannot be shown: why, or that nothing is there. */
export function PlaceProblem({ error }: { error: unknown }) {
  if (error instanceof Problem && error.code === "not-found") return <NothingHere />;
  return (
    <Shell>
      <div className="p-4">
        <ProblemNote error={error} />
      </div>
    </Shell>
  );
}
