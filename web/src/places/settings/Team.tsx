import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import { useSession } from "../../components/base/session";
import { FormField, useServerForm } from "../../components/controls/form";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { addUser, closeUser, type User, type UserInput, usersQuery } from "./queries";
import styles from "./settings.module.css";

const ROLES = ["practitioner", "assistant", "student", "owner"] as const;

/** Who works here, and in which role: the owner's part. */
export function Team() {
  const users = useQuery(usersQuery);
  return (
    <div className={styles.team}>
      <section aria-label="People who work here">
        <h2>People and roles</h2>
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

type NewUser = Omit<UserInput, "id">;
const EMPTY: NewUser = { login: "", name: "", password: "", role: "practitioner" };

function AddUser({ onAdded }: { onAdded: () => void }) {
  const [id, setId] = useState<string>(() => crypto.randomUUID());
  const { form, fields, submit, busy, error } = useServerForm<NewUser, User>({
    defaults: EMPTY,
    send: (values) => addUser({ id, ...values }),
    onDone: () => {
      setId(crypto.randomUUID());
      form.reset(EMPTY);
      onAdded();
    },
  });
  return (
    <form onSubmit={submit} aria-label="Add a colleague">
      <h3>Add a colleague</h3>
      <FormField form={form} name="name" label="Name, as it signs" autoComplete="off" required />
      <FormField
        form={form}
        name="login"
        label="Name they sign in with"
        autoComplete="off"
        required
      />
      <FormField
        form={form}
        name="password"
        label="First password, ten characters or more"
        type="password"
        autoComplete="new-password"
        required
      />
      <Form.Group controlId="role" className="mb-3">
        <Form.Label>Role</Form.Label>
        <Form.Select {...form.register("role")}>
          {ROLES.map((role) => (
            <option key={role}>{role}</option>
          ))}
        </Form.Select>
      </Form.Group>
      <ProblemNote error={error} known={fields} />
      <Button type="submit" disabled={busy}>
        Add
      </Button>
    </form>
  );
}
