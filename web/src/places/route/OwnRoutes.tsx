import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import { isLicensed, useSession } from "../../components/base/session";
import { TextField } from "../../components/controls/TextField";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { ownRoute, testsOn } from "../../state/screen/route";
import type { RouteProps } from "./props";
import { clinicRoutesQuery, dropRoute, keepRoute } from "./queries";
import styles from "./route.module.css";

/** The clinic's own routes for this purpose: begin from one, keep this one. */
export function OwnRoutes(props: RouteProps) {
  const { bench, screen, planned } = props;
  const licensed = isLicensed(useSession());
  const queries = useQueryClient();
  const routes = useQuery(clinicRoutesQuery);
  const own = (routes.data ?? []).filter((each) => each.purpose === screen.record.purpose);
  const refresh = () => void queries.invalidateQueries({ queryKey: clinicRoutesQuery.queryKey });
  const drop = useMutation({ mutationFn: dropRoute, onSuccess: refresh });
  return (
    <section aria-label="Our routes">
      <h2 className="panel-title">Our routes</h2>
      {own.length === 0 ? <p className="muted">None kept for this purpose.</p> : null}
      <ul className={styles.left}>
        {own.map((route) => (
          <li key={route.id}>
            <span>
              <strong>{route.name}</strong>{" "}
              <span className="muted">
                {route.tests.length} tests{route.reasons_after ? ", why comes after" : ""}
              </span>
            </span>
            <button
              type="button"
              className="plate"
              aria-label={`Use: ${route.name}`}
              onClick={() => bench.write(ownRoute(planned, route.tests, route.reasons_after))}
            >
              Use
            </button>
            {licensed ? (
              <button
                type="button"
                className="plate"
                aria-label={`Retire: ${route.name}`}
                onClick={() => drop.mutate(route.id)}
              >
                Retire
              </button>
            ) : null}
          </li>
        ))}
      </ul>
      <ProblemNote error={drop.error} />
      {licensed ? <Keep {...props} onKept={refresh} /> : null}
    </section>
  );
}

function Keep({ route, screen, onKept }: RouteProps & { onKept: () => void }) {
  const [name, setName] = useState<string | null>(null);
  const [after, setAfter] = useState(false);
  const [id, setId] = useState(() => crypto.randomUUID());
  const keep = useMutation({
    mutationFn: () =>
      keepRoute({
        id,
        purpose: screen.record.purpose,
        name: (name ?? "").trim(),
        tests: testsOn(route),
        reasons_after: after,
      }),
    onSuccess: () => {
      setName(null);
      setId(crypto.randomUUID());
      onKept();
    },
  });
  if (name === null) {
    return (
      <Button variant="quiet" disabled={route.stops.length === 0} onClick={() => setName("")}>
        Keep as our route
      </Button>
    );
  }
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        keep.mutate();
      }}
    >
      <TextField
        label="Name of the route"
        value={name}
        onChange={(event) => setName(event.target.value)}
        autoFocus
      />
      <label className={styles.check}>
        <input
          type="checkbox"
          checked={after}
          onChange={(event) => setAfter(event.target.checked)}
        />{" "}
        For learning: show why only once a stop is done
      </label>
      <Button type="submit" disabled={!name.trim() || keep.isPending}>
        Keep
      </Button>{" "}
      <Button variant="quiet" onClick={() => setName(null)}>
        Cancel
      </Button>
      <ProblemNote error={keep.error} />
    </form>
  );
}
