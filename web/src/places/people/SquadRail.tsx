import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import Button from "react-bootstrap/Button";
import type { Squad } from "../../api/athletes";
import { isStaff, useSession } from "../../components/base/session";
import { FormField, useServerForm } from "../../components/controls/form";
import { TakeAlongButton } from "../../components/controls/TakeAlongButton";
import { ProblemNote } from "../../components/marks/ProblemNote";
import styles from "./people.module.css";
import { addSquad, editSquad, squadsQuery } from "./queries";

interface Props {
  squads: Squad[];
  chosen: string | null;
  archived: boolean;
  onChoose: (squad: string | null, archived: boolean) => void;
}

export function SquadRail({ squads, chosen, archived, onChoose }: Props) {
  const session = useSession();
  const [editing, setEditing] = useState<Squad | "new" | null>(null);
  const standing = squads.filter((squad) => !squad.archived);
  const gone = squads.filter((squad) => squad.archived);
  const current = standing.find((squad) => squad.id === chosen);
  return (
    <nav className="rail" aria-label="Squads">
      <RailButton on={chosen === null && !archived} onClick={() => onChoose(null, false)}>
        Everyone
      </RailButton>
      {standing.map((squad) => (
        <RailButton
          key={squad.id}
          on={chosen === squad.id}
          onClick={() => onChoose(squad.id, false)}
        >
          <span>{squad.name}</span>
          <span className="muted">{squad.members}</span>
        </RailButton>
      ))}
      <RailButton on={archived} onClick={() => onChoose(null, true)}>
        Archived athletes
      </RailButton>
      {isStaff(session) ? (
        <div className={styles["rail-tools"]}>
          {current ? (
            <>
              <Button variant="quiet" onClick={() => setEditing(current)}>
                Edit {current.name}
              </Button>
              <TakeAlongButton whose={{ kind: "squad", id: current.id }} called={current.name} />
            </>
          ) : null}
          <Button variant="quiet" onClick={() => setEditing("new")}>
            Add squad
          </Button>
          {editing ? (
            <SquadForm
              squad={editing === "new" ? null : editing}
              onDone={(kept) => {
                setEditing(null);
                if (!kept) onChoose(null, false);
              }}
            />
          ) : null}
          {gone.map((squad) => (
            <RestoreSquad key={squad.id} squad={squad} />
          ))}
        </div>
      ) : null}
    </nav>
  );
}

function RailButton(props: { on: boolean; onClick: () => void; children: ReactNode }) {
  return (
    <button type="button" className="rail-line" aria-pressed={props.on} onClick={props.onClick}>
      {props.children}
    </button>
  );
}

function SquadForm({ squad, onDone }: { squad: Squad | null; onDone: (kept: boolean) => void }) {
  const queries = useQueryClient();
  const done = (kept: boolean) => {
    void queries.invalidateQueries(squadsQuery);
    onDone(kept);
  };
  const { form, fields, submit, busy, error } = useServerForm({
    defaults: { id: squad?.id ?? (crypto.randomUUID() as string), name: squad?.name ?? "" },
    send: ({ id, name }) => (squad ? editSquad(id, { name }) : addSquad(id, name)),
    onDone: () => done(true),
  });
  const archive = useMutation({
    mutationFn: (id: string) => editSquad(id, { archived: true }),
    onSuccess: () => done(false),
  });
  return (
    <form onSubmit={submit}>
      <FormField form={form} name="name" label="Name of the squad" autoFocus required />
      <ProblemNote error={error ?? archive.error} known={fields} />
      <Button type="submit" disabled={busy}>
        Save
      </Button>{" "}
      {squad ? (
        <Button variant="quiet" onClick={() => archive.mutate(squad.id)}>
          Archive
        </Button>
      ) : null}{" "}
      <Button variant="quiet" onClick={() => onDone(true)}>
        Cancel
      </Button>
    </form>
  );
}

function RestoreSquad({ squad }: { squad: Squad }) {
  const queries = useQueryClient();
  const restore = useMutation({
    mutationFn: () => editSquad(squad.id, { archived: false }),
    onSuccess: () => queries.invalidateQueries(squadsQuery),
  });
  return (
    <Button variant="quiet" onClick={() => restore.mutate()}>
      Restore {squad.name}
    </Button>
  );
}
