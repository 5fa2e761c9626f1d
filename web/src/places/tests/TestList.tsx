import { Link } from "react-router";
import type { Catalogue, Test } from "../../api/catalogue";
import { TextField } from "../../components/controls/TextField";
import { testTo } from "../../state/domain/addresses";
import { capital, readable } from "../../state/domain/wording";
import { clockWords, positionsOf, type Wanted } from "./look_up";
import styles from "./tests.module.css";

interface Props {
  catalogue: Catalogue;
  found: readonly Test[];
  wanted: Wanted;
  chosen: string | null;
  query: string;
  onWant: (part: Partial<Record<"find" | "region" | "position", string>>) => void;
}

/** Any name, place or muscle; region and position; what is found, each with what it costs. */
export function TestList({ catalogue, found, wanted, chosen, query, onWant }: Props) {
  return (
    <section className={styles.list} aria-label="Catalogue">
      <TextField
        label="Any name, place or muscle"
        type="search"
        value={wanted.text}
        onChange={(event) => onWant({ find: event.target.value })}
      />
      <div className={styles.filters}>
        <fieldset aria-label="Region" className={styles.regions}>
          {(["all", "hip", "ankle", "foot"] as const).map((region) => (
            <button
              key={region}
              type="button"
              aria-pressed={wanted.region === region}
              onClick={() => onWant({ region })}
            >
              {region}
            </button>
          ))}
        </fieldset>
        <select
          className="form-select"
          aria-label="Position"
          value={wanted.position}
          onChange={(event) => onWant({ position: event.target.value })}
        >
          <option value="">any position</option>
          {positionsOf(catalogue).map((position) => (
            <option key={position} value={position}>
              {readable(position)}
            </option>
          ))}
        </select>
      </div>
      <p className="muted small" role="status">
        {found.length === 0
          ? "No test goes by that name. Try the place or the muscle."
          : `${found.length} of ${catalogue.tests.length} tests`}
      </p>
      <ul>
        {found.map((test) => (
          <li key={test.code}>
            <Link
              to={`${testTo(test.code)}${query ? `?${query}` : ""}`}
              aria-current={test.code === chosen ? "page" : undefined}
            >
              <span>
                <strong>{test.name}</strong>
                <span className="muted">{capital(readable(test.region))}</span>
              </span>
              <span className="muted">
                {readable(test.position)}
                <br />
                {clockWords(test.seconds)}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
