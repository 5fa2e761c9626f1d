import { Mark } from "./Mark";

/** While nothing is here yet; `waiting` once the server did not answer. */
export function Away({ waiting }: { waiting: boolean }) {
  return (
    <main className="away">
      <Mark size={44} />
      <h1>{waiting ? "The server does not answer" : "Opening"}</h1>
      {waiting ? (
        <p role="status">
          Trying again by itself. What you typed is kept on this device and is sent when the server
          is back.
        </p>
      ) : null}
    </main>
  );
}
