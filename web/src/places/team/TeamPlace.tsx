import { useMutation, useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import { addUser, closeUser, type User, type UserInput, usersQuery } from "../../api/users";
import { faultAt, ProblemNote } from "../../components/ProblemNote";
import { Shell } from "../../components/Shell";
import { useSession } from "../../components/session";
import { TextField } from "../../components/TextField";

const ROLES = ["practitioner", "assistant", "student", "owner"] as const;

/** The owner's page: who works here, and in which role. */
export function TeamPlace() {
  const users = useQuery(usersQuery);
  return (
    <Shell who={<span className="muted">Who works here</span>}>
      <div className="team">
        <section aria-label="People who work here">
          <h1>Team</h1>
          <p className="muted">
            Everyone records. Practitioners and owners also sign, override, arrange and amend.
          </p>
          <ul className="screens">
            {users.data?.map((user) => (
              <UserLine key={user.id} user={user} onChanged={() => users.refetch()} />
            ))}
          </ul>
          <ProblemNote error={users.error} />
        </section>
        <AddUser onAdded={() => users.refetch()} />
      </div>
    </Shell>
  );
}

function UserLine({ user, onChanged }: { user: User; onChanged: () => void }) {
  const session = useSession();
  const close = useMutation({
    mutationFn: () => closeUser(user.id, !user.archived),
    onSuccess: onChanged,
  });
  return (
    <li>
      <span>
        <strong>{user.name}</strong> <span className="muted">{`${user.login} · ${user.role}`}</span>
      </span>
      {user.id === session.user_id ? null : (
        <Button variant="quiet" disabled={close.isPending} onClick={() => close.mutate()}>
          {user.archived ? `Open ${user.login} again` : `Close ${user.login}`}
        </Button>
      )}
    </li>
  );
}

const EMPTY = { login: "", name: "", password: "", role: "practitioner" as UserInput["role"] };

function AddUser({ onAdded }: { onAdded: () => void }) {
  const [id, setId] = useState<string>(() => crypto.randomUUID());
  const [values, setValues] = useState(EMPTY);
  const add = useMutation({
    mutationFn: () => addUser({ id, ...values }),
    onSuccess: () => {
      setId(crypto.randomUUID());
      setValues(EMPTY);
      onAdded();
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    add.mutate();
  };
  const field = (name: "login" | "name" | "password", label: string) => (
    <TextField
      label={label}
      type={name === "password" ? "password" : "text"}
      value={values[name]}
      onChange={(value) => setValues({ ...values, [name]: value })}
      fault={faultAt(add.error, name)}
      autoComplete={name === "password" ? "new-password" : "off"}
      required
    />
  );
  return (
    <form onSubmit={submit} aria-label="Add a colleague">
      <h2 className="panel-title">Add a colleague</h2>
      {field("name", "Name, as it signs")}
      {field("login", "Name they sign in with")}
      {field("password", "First password, ten characters or more")}
      <Form.Group controlId="role" className="mb-3">
        <Form.Label>Role</Form.Label>
        <Form.Select
          value={values.role}
          onChange={(event) =>
            setValues({ ...values, role: event.target.value as UserInput["role"] })
          }
        >
          {ROLES.map((role) => (
            <option key={role}>{role}</option>
          ))}
        </Form.Select>
      </Form.Group>
      <ProblemNote error={add.error} known={["login", "name", "password"]} />
      <Button type="submit" disabled={add.isPending}>
        Add
      </Button>
    </form>
  );
}
