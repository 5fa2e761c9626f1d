import type { ReactNode } from "react";
import { Mark } from "../marks/Mark";
import { Shell } from "./Shell";

interface Props {
  /** Once the server did not answer. */
  waiting: boolean;
}

/** Before anybody is known to be signed in: nothing else is here. */
export function Away({ waiting }: Props) {
  return (
    <main className="away">
      <Waits waiting={waiting} />
    </main>
  );
}

/** A place whose data is not here yet: the ways to the other places stay. */
export function PlaceAway({ waiting, screen, who }: Props & { screen?: string; who?: ReactNode }) {
  return (
    <Shell who={who} {...(screen ? { screen } : {})}>
      <div className="away">
        <Waits waiting={waiting} />
      </div>
    </Shell>
  );
}

function Waits({ waiting }: Props) {
  return (
    <>
      <Mark size={44} />
      <h1>{waiting ? "The server does not answer" : "Opening"}</h1>
      {waiting ? (
        <p role="status">
          Trying again by itself. What you typed is kept on this device and is sent when the server
          is back.
        </p>
      ) : null}
    </>
  );
}
