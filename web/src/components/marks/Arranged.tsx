import { useMutation, useQueryClient } from "@tanstack/react-query";
import { DAY_KEY } from "../../api/day";
import { undoArrangement } from "../../api/screens";
import { newestStep, type Standing, stepWords } from "../../state/domain/arranging";
import { isLicensed, useSession } from "../base/session";
import { ProblemNote } from "./ProblemNote";

interface Props {
  screen: string;
  standing: Standing | undefined;
  onChanged: () => void;
}

/** How it stands with an action, in words; who did it can be taken back, and stays in the record. */
export function Arranged({ screen, standing, onChanged }: Props) {
  const session = useSession();
  const newest = newestStep(standing);
  const queries = useQueryClient();
  const undo = useMutation({
    mutationFn: (step: string) => undoArrangement(screen, step, crypto.randomUUID()),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: DAY_KEY });
      onChanged();
    },
  });
  if (!newest) return null;
  return (
    <span className="arranged">
      {stepWords(newest.does, newest.step)}{" "}
      {isLicensed(session) ? (
        <button
          type="button"
          className="text-button"
          disabled={undo.isPending}
          onClick={() => undo.mutate(newest.step.id)}
        >
          undo
        </button>
      ) : null}
      <ProblemNote error={undo.error} />
    </span>
  );
}
