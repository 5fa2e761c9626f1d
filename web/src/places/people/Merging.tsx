import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import type { Athlete } from "../../api/athletes";
import { useSession } from "../../components/base/session";
import { AthleteChoice } from "../../components/controls/AthleteChoice";
import { PasswordDialog } from "../../components/controls/PasswordDialog";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { momentWords } from "../../state/domain/audit";
import { readable } from "../../state/domain/wording";
import styles from "./people.module.css";
import {
  type Merged,
  type MergePreview,
  mergeAthletes,
  mergeQuery,
  mergesQuery,
  undoMerge,
} from "./queries";

interface Props {
  athlete: Athlete;
  onChanged: () => void;
}

/** For owners: somebody who stands twice is brought together, and can be parted again. */
export function Merging({ athlete, onChanged }: Props) {
  const session = useSession();
  const queries = useQueryClient();
  const merges = useQuery(mergesQuery(athlete.id));
  const [open, setOpen] = useState(false);
  const [parting, setParting] = useState<Merged | null>(null);
  const done = () => {
    setOpen(false);
    setParting(null);
    // Their screens, squads and lines stand elsewhere now.
    void queries.invalidateQueries();
    onChanged();
  };
  return (
    <div className="mt-2">
      {athlete.archived ? null : (
        <Button variant="quiet" onClick={() => setOpen(true)}>
          Same person as…
        </Button>
      )}
      {merges.data?.map((merge) => (
        <p key={merge.id} className="mb-1">
          <span className="muted">
            {merge.name}, {merge.ref}: brought here {momentWords(merge.at, session.time_zone)}
          </span>{" "}
          <button type="button" className="text-button" onClick={() => setParting(merge)}>
            part again…<span className="only-read-aloud"> {merge.ref}</span>
          </button>
        </p>
      ))}
      {open ? <Together athlete={athlete} onDone={done} onClose={() => setOpen(false)} /> : null}
      {parting ? (
        <PasswordDialog
          title={`Part ${parting.ref} from ${athlete.ref}`}
          does="Part"
          send={({ password }) => undoMerge(athlete.id, { merge: parting.id, password })}
          onDone={done}
          onClose={() => setParting(null)}
        >
          <p>
            The screens that came with {parting.name} go back. What was written since stays here.
          </p>
        </PasswordDialog>
      ) : null}
    </div>
  );
}

interface TogetherProps {
  athlete: Athlete;
  onDone: () => void;
  onClose: () => void;
}

/** Both side by side before anything is done. */
function Together({ athlete, onDone, onClose }: TogetherProps) {
  const [id] = useState(() => crypto.randomUUID());
  const [gone, setGone] = useState("");
  const plan = useQuery({ ...mergeQuery(athlete.id, gone), enabled: gone !== "" });
  return (
    <PasswordDialog
      title={`Who else is ${athlete.name}?`}
      does="Bring together"
      send={({ password }) => mergeAthletes(athlete.id, { id, gone, password })}
      onDone={onDone}
      onClose={onClose}
      elsewhere
    >
      <AthleteChoice
        find="Find the second entry"
        label="The same person as"
        except={athlete.id}
        value={gone}
        onChange={(event) => setGone(event.target.value)}
      />
      {gone !== "" && plan.data ? <Plan plan={plan.data} /> : null}
      <ProblemNote error={plan.error} />
    </PasswordDialog>
  );
}

/** Who stays and who goes into them, what comes along, and what stands against it. */
function Plan({ plan }: { plan: MergePreview }) {
  const { kept, gone, screens, squads, filled, faults } = plan;
  return (
    <>
      <table className={styles.merging}>
        <thead>
          <tr>
            <th aria-label="what" />
            <th>stays</th>
            <th>goes into it</th>
          </tr>
        </thead>
        <tbody>
          {(["name", "ref", "birth_date"] as const).map((what) => (
            <tr key={what}>
              <th scope="row">{WHAT[what]}</th>
              <td>{kept[what] ?? "not known"}</td>
              <td>{gone[what] ?? "not known"}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {kept.name === gone.name ? null : (
        <p>
          <strong>The names differ.</strong> Only you know whether this is one person.
        </p>
      )}
      {faults.map(({ path, problem }) => (
        <p key={path} className="fault" role="alert">
          {WHAT[path] ?? readable(path)}: {problem}.
        </p>
      ))}
      <p>
        {screens} {screens === 1 ? "screen comes" : "screens come"} along
        {squads > 0 ? `, ${squads} more ${squads === 1 ? "squad" : "squads"}` : ""}
        {filled.length > 0 ? `; filled in: ${filled.map(readable).join(", ")}` : ""}. What is signed
        stays as it was signed. It can be undone here.
      </p>
    </>
  );
}

const WHAT: Readonly<Record<string, string>> = {
  name: "Name",
  ref: "Reference",
  birth_date: "Born",
  sex: "Sex",
  gone: "The second entry",
};
