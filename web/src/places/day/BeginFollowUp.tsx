import Button from "react-bootstrap/Button";
import { useBegin } from "../../components/controls/useBegin";
import { ProblemNote } from "../../components/marks/ProblemNote";

interface Props {
  athlete: { id: string; name: string };
  variant: "primary" | "quiet";
}

/** A second look, in one tap: the screen is there, and its story asks first. */
export function BeginFollowUp({ athlete, variant }: Props) {
  const begin = useBegin(athlete.id);
  return (
    <>
      <Button
        variant={variant}
        disabled={begin.isPending}
        aria-label={`Begin: ${athlete.name}`}
        onClick={() => begin.mutate({ id: crypto.randomUUID(), purpose: "follow_up" })}
      >
        Begin
      </Button>
      <ProblemNote error={begin.error} />
    </>
  );
}
