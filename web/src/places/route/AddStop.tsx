import { useState } from "react";
import { TextField } from "../../components/controls/TextField";
import { readable } from "../../state/domain/wording";
import { searchTests, takeIn, testsOn } from "../../state/screen/route";
import type { RouteProps } from "./props";
import styles from "./route.module.css";

/** A stop more, by any name somebody uses for it. */
export function AddStop({ bench, catalogue, route, planned }: RouteProps) {
  const [text, setText] = useState("");
  const found = searchTests(catalogue, text, new Set([...testsOn(route), ...planned]));
  const add = (code: string) => {
    bench.write(takeIn(route, planned, code));
    setText("");
  };
  return (
    <section aria-label="Add a stop">
      <TextField
        label="Add a stop, by any name"
        type="search"
        value={text}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => {
          const [first] = found;
          if (event.key === "Enter" && first) add(first.code);
        }}
      />
      <ul className={styles.found}>
        {found.map((test) => (
          <li key={test.code}>
            <span>
              <strong>{test.name}</strong>
              <small className="muted">
                {[...test.other_names, readable(test.position)].join(" · ")}
              </small>
            </span>
            <button
              type="button"
              className="plate"
              aria-label={`Add: ${test.name}`}
              onClick={() => add(test.code)}
            >
              Add
            </button>
          </li>
        ))}
      </ul>
      {text.trim().length >= 2 && found.length === 0 ? (
        <p className="muted">No other test of this name.</p>
      ) : null}
    </section>
  );
}
