import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import { athleteQuery, editAthlete } from "../../api/athletes";
import { type Screen, screenQuery } from "../../api/screens";
import { isStaff, useSession } from "../../components/base/session";
import { TextField } from "../../components/controls/TextField";
import { ProblemNote } from "../../components/marks/ProblemNote";
import type { Bench } from "../../state/screen/bench";
import { readDay } from "./dates";

/** A fact of the athlete, not of this screen: kept where it holds for all of them. */
export function BirthDate({ screen, bench }: { screen: Screen; bench: Bench }) {
  const queries = useQueryClient();
  const session = useSession();
  const [day, setDay] = useState("");
  const athlete = useQuery(athleteQuery(screen.athlete.id));
  const keep = useMutation({
    mutationFn: (seen: number) => editAthlete(screen.athlete.id, { seen, birth_date: day }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: screenQuery(screen.record.id).queryKey });
      bench.readAgain();
    },
  });
  if (!isStaff(session)) return <p className="muted">The birth date is not known.</p>;
  return (
    <>
      <TextField
        label="Birth date"
        type="date"
        value={day}
        hint="Age decides which danger is thought of."
        onChange={(event) => setDay(event.target.value)}
      />
      <Button
        variant="quiet"
        disabled={!readDay(day) || !athlete.data || keep.isPending}
        onClick={() => athlete.data && keep.mutate(athlete.data.revision)}
      >
        Keep birth date
      </Button>
      <ProblemNote error={keep.error} />
    </>
  );
}
