// The door's forms: needed by who is not signed in yet, and at the lock.
import { Away } from "../../components/Away";
import { part } from "../../components/part";

const signIn = part(() => import("./SignInPlace"), Away);
const signInAgain = part(() => import("./SignInAgain"), Away);

export const SignInPlace = signIn.Place;
export const SignInAgain = signInAgain.Place;

export const loadDoor = (): Promise<unknown> =>
  Promise.allSettled([signIn.load(), signInAgain.load()]);
