import { useMutation } from "@tanstack/react-query";
import { exportLine, type Picture } from "../../api/exports";
import { saveFile } from "../../components/base/saveFile";
import { isLicensed, useSession } from "../../components/base/session";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { linesOf, type Pair } from "../../state/domain/course";

/** The line by itself, as a drawing or as a picture. */
export function LineFiles({ athlete, pair }: { athlete: string; pair: Pair }) {
  const session = useSession();
  const { test, measure } = pair;
  const of = { test: test.code, measure: measure.code, key: linesOf(pair)[0]?.key ?? "" };
  const made = useMutation({
    mutationFn: (form: Picture) => exportLine(athlete, of, form),
    onSuccess: (file, form) =>
      saveFile(file, `north-stride-${test.code}-${measure.code}.${form}`.replaceAll("_", "-")),
  });
  if (!isLicensed(session)) return null;
  return (
    <div className="small d-flex justify-content-center gap-2">
      {(["svg", "png"] as const).map((form) => (
        <button
          key={form}
          type="button"
          className="text-button"
          disabled={made.isPending}
          onClick={() => made.mutate(form)}
        >
          {form.toUpperCase()}
          <span className="only-read-aloud">
            {" "}
            of {test.name}, {measure.label.toLowerCase()}
          </span>
        </button>
      ))}
      <ProblemNote error={made.error} />
    </div>
  );
}
