import { useInfiniteQuery } from "@tanstack/react-query";
import { type ComponentPropsWithRef, useDeferredValue, useState } from "react";
import Form from "react-bootstrap/Form";
import { athletesQuery } from "../../api/athletes";
import { TextField } from "./TextField";

interface Props extends ComponentPropsWithRef<"select"> {
  /** What one looks for. */
  find: string;
  label: string;
  /** Who cannot be chosen. */
  except: string;
}

/** Another athlete of the clinic: found by a word, chosen by name, reference and birth date. */
export function AthleteChoice({ find, label, except, ...select }: Props) {
  const [search, setSearch] = useState("");
  const filter = { search: useDeferredValue(search), squad: null, archived: false };
  const found = useInfiniteQuery(athletesQuery(filter));
  const others = (found.data?.pages ?? [])
    .flatMap((page) => page.athletes)
    .filter(({ id }) => id !== except);
  return (
    <>
      <TextField
        label={find}
        type="search"
        autoFocus
        value={search}
        onChange={(event) => setSearch(event.target.value)}
      />
      <Form.Group controlId="another-athlete" className="mb-3">
        <Form.Label>{label}</Form.Label>
        <select className="form-select" id="another-athlete" {...select} required>
          <option value="">choose</option>
          {others.map(({ id, name, ref, birth_date }) => (
            <option key={id} value={id}>
              {[name, ref, birth_date].filter(Boolean).join(" · ")}
            </option>
          ))}
        </select>
      </Form.Group>
    </>
  );
}
