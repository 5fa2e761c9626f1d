import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import { useSession } from "../../components/base/session";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { Altered } from "./Altered";
import { type Clinic, clinicQuery, editClinic, type School, type Schools } from "./queries";
import styles from "./settings.module.css";
import { Choice, Plate } from "./ThisDevice";

type Chosen = Record<string, string | number>;

/** Where practitioners differ: what is in force, why the default is one, what a change would alter. */
export function SchoolsPart() {
  const clinic = useQuery(clinicQuery);
  if (clinic.error) return <ProblemNote error={clinic.error} />;
  if (!clinic.data) return <p className="muted">Opening</p>;
  return <Choosing clinic={clinic.data} onKept={() => clinic.refetch()} />;
}

function Choosing({ clinic, onKept }: { clinic: Clinic; onKept: () => void }) {
  const session = useSession();
  const owner = session.role === "owner";
  const [changed, setChanged] = useState<Chosen>({});
  const inForce: Chosen = { ...clinic.schools };
  const keep = useMutation({
    mutationFn: (to_open: boolean) => editClinic({ schools: changed as Schools, to_open }),
    onSuccess: () => {
      setChanged({});
      onKept();
    },
  });
  const choose = (school: School, value: string | number) =>
    setChanged((before) => {
      const next = { ...before, [school.code]: value };
      if (inForce[school.code] === value) delete next[school.code];
      return next;
    });
  const anything = Object.keys(changed).length > 0;
  return (
    <section aria-label="Schools">
      <h2>Schools</h2>
      <p className="muted">
        A new screen is read by these and keeps them. Values stay as they were taken, whatever is
        chosen. {owner ? "" : "The owner chooses them."}
      </p>
      {anything ? (
        <div className={styles.change} role="status">
          <Altered schools={changed as Schools} />
          <div className="plates">
            <Button disabled={keep.isPending} onClick={() => keep.mutate(false)}>
              Keep for new screens
            </Button>
            <Button variant="quiet" disabled={keep.isPending} onClick={() => keep.mutate(true)}>
              Keep, and read the open ones by it
            </Button>
            <Button variant="quiet" onClick={() => setChanged({})}>
              Leave as it was
            </Button>
          </div>
          <ProblemNote error={keep.error} />
        </div>
      ) : null}
      <div className={styles.schools}>
        {clinic.asked.map((school) => (
          <Choice key={school.code} name={school.name} why={school.why}>
            {school.options.map((option) => (
              <Plate
                key={option.value}
                on={(changed[school.code] ?? inForce[school.code]) === option.value}
                disabled={!owner}
                does={() => choose(school, option.value)}
              >
                {option.label}
                {option.value === school.default ? (
                  <span className={styles.default}> default</span>
                ) : null}
              </Plate>
            ))}
          </Choice>
        ))}
      </div>
    </section>
  );
}
