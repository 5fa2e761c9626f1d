// The entry's forms: needed by who is not signed in yet, and at the lock.
import type { Session } from "../../api/session";
import { part } from "../../components/base/part";
import { Away } from "../../components/layout/Away";

const signIn = part(() => import("./SignInPlace"), Away);
const signInAgain = part(() => import("./SignInAgain"), Away);

const pairing = part<{ here: Session | null; onEntered: (session: Session) => Promise<void> }>(
  () => import("./PairPlace"),
  Away,
);

export const PairPlace = pairing.Place;
export const SignInPlace = signIn.Place;
export const SignInAgain = signInAgain.Place;

export const loadSignIn = (): Promise<unknown> =>
  Promise.allSettled([signIn.load(), signInAgain.load()]);
