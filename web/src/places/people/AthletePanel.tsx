import { useMutation, useQuery } from "@tanstack/react-query";
import Button from "react-bootstrap/Button";
import { Link, useNavigate } from "react-router";
import { type Athlete, editAthlete, type Squad } from "../../api/athletes";
import { beginScreen, screensQuery } from "../../api/screens";
import { ProblemNote } from "../../components/ProblemNote";
import { isStaff, useSession, useToday } from "../../components/session";
import { ageOn, dayWords, purposeName } from "../../state/wording";

interface Props {
  athlete: Athlete | null;
  squads: Squad[];
  onEdit: (athlete: Athlete) => void;
  onChanged: () => void;
}

/** The chosen athlete: begin a screen, open an earlier one, edit, archive. */
export function AthletePanel({ athlete, squads, onEdit, onChanged }: Props) {
  const day = useToday();
  if (!athlete) {
    return (
      <aside className="panel" aria-label="Chosen athlete">
        <p className="muted">Choose an athlete to begin or open a screen.</p>
      </aside>
    );
  }
  return (
    <aside className="panel" aria-label="Chosen athlete">
      <h2 className="fs-4">{athlete.name}</h2>
      <p className="muted">{facts(athlete, squads, day)}</p>
      {athlete.archived ? null : <BeginScreen athlete={athlete} />}
      <Screens athlete={athlete} />
      <Keep athlete={athlete} onEdit={onEdit} onChanged={onChanged} />
    </aside>
  );
}

function facts(athlete: Athlete, squads: Squad[], day: string): string {
  const age = ageOn(athlete.birth_date, day);
  const own = squads
    .filter((squad) => athlete.squads.includes(squad.id))
    .map((squad) => squad.name);
  return [athlete.ref, age === null ? null : `${age} years`, athlete.sex, athlete.sport, ...own]
    .filter(Boolean)
    .join(" · ");
}

function BeginScreen({ athlete }: { athlete: Athlete }) {
  const navigate = useNavigate();
  const day = useToday();
  const begin = useMutation({
    mutationFn: (id: string) =>
      beginScreen({ id, athlete_id: athlete.id, date: day, purpose: "squad_screen" }),
    onSuccess: (screen) => navigate(`/screens/${screen.id}/bench`),
  });
  return (
    <>
      <Button
        className="w-100"
        disabled={begin.isPending}
        onClick={() => begin.mutate(crypto.randomUUID())}
      >
        Begin a squad screen
      </Button>
      <ProblemNote error={begin.error} />
    </>
  );
}

function Screens({ athlete }: { athlete: Athlete }) {
  const screens = useQuery(screensQuery(athlete.id));
  return (
    <>
      <h2 className="panel-title">Screens</h2>
      {screens.data?.length === 0 ? <p className="muted">None yet.</p> : null}
      <ul className="screens">
        {screens.data?.map((screen) => (
          <li key={screen.id}>
            <Link to={`/screens/${screen.id}/${screen.state === "open" ? "bench" : "reading"}`}>
              {dayWords(screen.date)}, {purposeName(screen.purpose)}
            </Link>
            <span className="muted">{screen.state}</span>
          </li>
        ))}
      </ul>
    </>
  );
}

function Keep({
  athlete,
  onEdit,
  onChanged,
}: Omit<Props, "squads" | "athlete"> & { athlete: Athlete }) {
  const session = useSession();
  const archive = useMutation({
    mutationFn: () => editAthlete(athlete.id, { archived: !athlete.archived }),
    onSuccess: onChanged,
  });
  if (!isStaff(session)) return null;
  return (
    <div className="d-flex gap-2 mt-3">
      <Button variant="quiet" onClick={() => onEdit(athlete)}>
        Edit
      </Button>
      <Button variant="quiet" disabled={archive.isPending} onClick={() => archive.mutate()}>
        {athlete.archived ? "Restore" : "Archive"}
      </Button>
      <ProblemNote error={archive.error} />
    </div>
  );
}
