import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import Button from "react-bootstrap/Button";
import { Link } from "react-router";
import { type Athlete, athletesQuery, squadsQuery } from "../../api/athletes";
import { Shell } from "../../components/Shell";
import { isStaff, useSession } from "../../components/session";
import { TextField } from "../../components/TextField";
import { AthleteForm } from "./AthleteForm";
import { AthletePanel } from "./AthletePanel";
import { ImportRecord } from "./ImportRecord";
import { PeopleList } from "./PeopleList";

import { SquadRail } from "./SquadRail";

/** Find an athlete or a squad; the flags of each side at a glance. */
export function PeoplePlace() {
  const session = useSession();
  const [search, setSearch] = useState("");
  const [squad, setSquad] = useState<string | null>(null);
  const [archived, setArchived] = useState(false);
  const [chosen, setChosen] = useState<string | null>(null);
  const [form, setForm] = useState<Athlete | "new" | null>(null);
  const filter = { search: useDeferredValue(search), squad, archived };
  const athletes = useQuery({ ...athletesQuery(filter), placeholderData: (before) => before });
  const squads = useQuery(squadsQuery);
  const athlete = athletes.data?.find((candidate) => candidate.id === chosen) ?? null;
  const places =
    session.role === "owner" ? (
      <Link className="place" to="/team">
        Team
      </Link>
    ) : null;
  return (
    <Shell who={<span className="muted">{session.clinic}</span>} places={places}>
      <div className="people">
        <SquadRail
          squads={squads.data ?? []}
          chosen={squad}
          archived={archived}
          onChoose={(next, old) => {
            setSquad(next);
            setArchived(old);
          }}
        />
        <section className="people-middle" aria-label="Athletes">
          <h1 className="only-read-aloud">People</h1>
          <div className="people-tools">
            <TextField
              label="Find by name, reference or sport"
              type="search"
              value={search}
              onChange={setSearch}
              autoFocus
            />
            {isStaff(session) ? <Button onClick={() => setForm("new")}>Add athlete</Button> : null}
            <ImportRecord onImported={() => athletes.refetch()} />
          </div>
          <PeopleList
            athletes={athletes.data}
            error={athletes.error}
            filtered={search !== "" || squad !== null || archived}
            chosen={chosen}
            onChoose={setChosen}
          />
        </section>
        <AthletePanel
          athlete={athlete}
          squads={squads.data ?? []}
          onEdit={(whom) => setForm(whom)}
          onChanged={() => athletes.refetch()}
        />
      </div>
      {form ? (
        <AthleteForm
          athlete={form === "new" ? null : form}
          squads={(squads.data ?? []).filter((candidate) => !candidate.archived)}
          inSquad={squad}
          onClose={() => setForm(null)}
          onSaved={(saved) => {
            setForm(null);
            setChosen(saved.id);
            void athletes.refetch();
            void squads.refetch();
          }}
        />
      ) : null}
    </Shell>
  );
}
