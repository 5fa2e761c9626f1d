import { useMutation, useQuery } from "@tanstack/react-query";
import Button from "react-bootstrap/Button";
import { Link } from "react-router";
import { type Athlete, athleteQuery, editAthlete, type Squad } from "../../api/athletes";
import { catalogueQuery } from "../../api/catalogue";
import { type ScreenLine, screensQuery } from "../../api/screens";
import { isStaff, useSession, useToday } from "../../components/base/session";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { athleteTo, stepTo } from "../../state/domain/addresses";
import { isUrgent } from "../../state/domain/urgent";
import { ageOn, dayWords, flagName, purposeName, urgencyName } from "../../state/domain/wording";
import { BeginScreen } from "./BeginScreen";
import { Merging } from "./Merging";

interface Props {
  id: string | null;
  squads: Squad[];
  onEdit: (athlete: Athlete) => void;
  onChanged: () => void;
}

/** The chosen athlete: begin a screen, open an earlier one, edit, archive. */
export function AthletePanel({ id, ...rest }: Props) {
  return (
    <aside className="panel" aria-label="Chosen athlete">
      {id === null ? (
        <p className="muted">Choose an athlete to begin or open a screen.</p>
      ) : (
        <Chosen key={id} id={id} {...rest} />
      )}
    </aside>
  );
}

function Chosen({ id, squads, onEdit, onChanged }: Props & { id: string }) {
  const day = useToday();
  const session = useSession();
  const { data: athlete, error, refetch } = useQuery(athleteQuery(id));
  if (error && !athlete) return <ProblemNote error={error} />;
  if (!athlete) return <p className="muted">Opening</p>;
  const changed = () => {
    void refetch();
    onChanged();
  };
  return (
    <>
      <h2 className="fs-4">
        <Link className="text-reset" to={athleteTo(athlete.id)}>
          {athlete.name}
        </Link>
      </h2>
      <p className="muted">{facts(athlete, squads, day)}</p>
      <Urgent athlete={athlete} />
      {athlete.archived ? null : <BeginScreen athlete={athlete} />}
      <Screens athlete={athlete} />
      <Keep athlete={athlete} onEdit={onEdit} onChanged={changed} />
      {session.role === "owner" ? <Merging athlete={athlete} onChanged={changed} /> : null}
    </>
  );
}

/** What cannot wait, as the last screen reads: arranged on its Reading. */
function Urgent({ athlete }: { athlete: Athlete }) {
  const last = athlete.last_screen;
  const catalogue = useQuery(catalogueQuery);
  const urgent = (last?.flags ?? []).filter(({ urgency }) => urgency && isUrgent({ urgency }));
  if (!last || !catalogue.data || urgent.length === 0) return null;
  const known = catalogue.data;
  return (
    <div className="urgent-bar" role="alert">
      <span className="flex-fill">
        {urgent.map((flag) => (
          <span key={`${flag.code} ${flag.side}`} className="d-block">
            <strong>{urgencyName(flag.urgency ?? "")}</strong> {flagName(known, flag.code)}
            {flag.side ? `, ${flag.side}` : ""}
          </span>
        ))}
      </span>
      <Link to={stepTo(last.id, "reading")}>See to it</Link>
    </div>
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

function Screens({ athlete }: { athlete: Athlete }) {
  const screens = useQuery(screensQuery(athlete.id));
  return (
    <>
      <h2 className="panel-title">Screens</h2>
      {screens.data?.length === 0 ? <p className="muted">None yet.</p> : null}
      <ul className="screens">
        {screens.data?.map((screen) => (
          <li key={screen.id}>
            <Link to={stepTo(screen.id, screen.state === "open" ? "bench" : "reading")}>
              {dayWords(screen.date)}, {purposeName(screen.purpose)}
            </Link>
            <span className="muted">{stateWords(screen)}</span>
          </li>
        ))}
      </ul>
    </>
  );
}

/** An examiner a file named is nobody's here. */
function stateWords({ state, examiner, from_file }: ScreenLine): string {
  return from_file && examiner ? `${state}, ${examiner} as written in the file` : state;
}

interface KeepProps {
  athlete: Athlete;
  onEdit: (athlete: Athlete) => void;
  onChanged: () => void;
}

function Keep({ athlete, onEdit, onChanged }: KeepProps) {
  const session = useSession();
  const archive = useMutation({
    mutationFn: () =>
      editAthlete(athlete.id, { seen: athlete.revision, archived: !athlete.archived }),
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
