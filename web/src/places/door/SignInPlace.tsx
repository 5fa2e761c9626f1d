import type { Door, Session } from "../../api/session";
import { Mark } from "../../components/Mark";
import { keep } from "../../state/device_services";
import { sealedHere } from "../../state/seal";
import styles from "./door.module.css";
import { SetUpForm } from "./SetUpForm";
import { SignInForm } from "./SignInForm";

/** The first page: sign in, or make the first owner where nobody is yet. */
export default function SignInPlace({
  door,
  onEntered,
}: {
  door: Door;
  onEntered: (s: Session) => void;
}) {
  return (
    <main className={styles.door}>
      <section className={styles["door-left"]} aria-label="What this is">
        <Mark size={84} />
        <h1>North Stride</h1>
        <p className="lead">Hips, ankles and feet, side against side.</p>
        <p className="caution">{door.caution}</p>
      </section>
      <section className={styles["door-right"]} aria-label={door.set_up ? "Sign in" : "Set up"}>
        <LeftSealed />
        {door.set_up ? (
          <SignInForm accounts={door.demo_accounts} onEntered={onEntered} />
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
