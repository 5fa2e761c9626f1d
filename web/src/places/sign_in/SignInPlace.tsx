import type { Entry, Session } from "../../api/session";
import { Mark } from "../../components/marks/Mark";
import { sealedHere } from "../../state/device/sealing";
import { keep } from "../../state/device/services";
import { SetUpForm } from "./SetUpForm";
import { SignInForm } from "./SignInForm";
import styles from "./sign_in.module.css";

/** The first page: sign in, or make the first owner where nobody is yet. */
export default function SignInPlace({
  entry,
  onEntered,
}: {
  entry: Entry;
  onEntered: (s: Session) => void;
}) {
  return (
    <main className={styles.entry}>
      <section className={styles["entry-left"]} aria-label="What this is">
        <Mark size={84} />
        <h1>North Stride</h1>
        <p className="lead">Hips, ankles and feet, side against side.</p>
        <p className="caution">{entry.caution}</p>
      </section>
      <section className={styles["entry-right"]} aria-label={entry.set_up ? "Sign in" : "Set up"}>
        <LeftSealed />
        {entry.set_up ? (
          <SignInForm accounts={entry.demo_accounts} onEntered={onEntered} />
        ) : (
          <SetUpForm onEntered={onEntered} />
        )}
      </section>
    </main>
  );
}

/** What somebody left unsent: said, so that nobody takes it for lost. */
function LeftSealed() {
  return sealedHere(keep).map(({ name, count }) => (
    <p key={name} className="caution" role="status">
      {count} {count === 1 ? "entry" : "entries"} of {name} not sent yet. Sealed on this device, and
      sent once {name} signs in here.
    </p>
  ));
}
