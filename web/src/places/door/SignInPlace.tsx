import type { Door, Session } from "../../api/session";
import { Mark } from "../../components/Mark";

import { SetUpForm } from "./SetUpForm";
import { SignInForm } from "./SignInForm";

/** The first page: sign in, or make the first owner where nobody is yet. */
export function SignInPlace({ door, onEntered }: { door: Door; onEntered: (s: Session) => void }) {
  return (
    <main className="door">
      <section className="door-left" aria-label="What this is">
        <Mark size={84} />
        <h1>North Stride</h1>
        <p className="lead">Hips, ankles and feet, side against side.</p>
        <p className="caution">{door.caution}</p>
      </section>
      <section className="door-right" aria-label={door.set_up ? "Sign in" : "Set up"}>
        {door.set_up ? (
          <SignInForm accounts={door.demo_accounts} onEntered={onEntered} />
        ) : (
          <SetUpForm onEntered={onEntered} />
        )}
      </section>
    </main>
  );
}
