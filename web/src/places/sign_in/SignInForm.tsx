import { useMutation } from "@tanstack/react-query";
import Button from "react-bootstrap/Button";
import type { Schema } from "../../api/client";
import { type Session, signIn } from "../../api/session";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { NameAndPassword } from "./NameAndPassword";
import styles from "./sign_in.module.css";

interface Props {
  accounts: Schema["DemoAccount"][];
  onEntered: (session: Session) => void;
}

export function SignInForm({ accounts, onEntered }: Props) {
  return (
    <>
      <h2 className="mb-3 fs-4">Sign in</h2>
      <NameAndPassword onEntered={onEntered} />
      {accounts.length > 0 ? <DemoAccounts accounts={accounts} onEntered={onEntered} /> : null}
    </>
  );
}

/** One tap each: the demo hides nothing. */
function DemoAccounts({ accounts, onEntered }: Props) {
  const enter = useMutation({
    mutationFn: (who: Schema["DemoAccount"]) => signIn(who.login, who.password),
    onSuccess: onEntered,
  });
  return (
    <div className={styles["demo-accounts"]}>
      <h2>Demo: everyone here is made up</h2>
      {accounts.map((account) => (
        <Button
          key={account.login}
          variant="quiet"
          disabled={enter.isPending}
          onClick={() => enter.mutate(account)}
        >
          <span>Enter as {account.role}</span>
          <span className="muted fw-normal">
            {account.login} · {account.password}
          </span>
        </Button>
      ))}
      <ProblemNote error={enter.error} />
    </div>
  );
}
