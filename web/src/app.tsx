import { useQuery } from "@tanstack/react-query";
import { Navigate, Route, Routes, useLocation } from "react-router";
import { entryQuery, type Session } from "./api/session";
import { SessionContext } from "./components/base/session";
import { Away } from "./components/layout/Away";
import { NothingHere } from "./components/layout/NothingHere";
import { Frame } from "./components/layout/Shell";
import { CODE, loadAt } from "./place_code";
import { PairPlace, SignInAgain, SignInPlace } from "./places/sign_in";
import { useEntry } from "./places/sign_in/useEntry";
import { ATHLETE, PAIR, PLACES, type PlaceName, STEPS } from "./state/domain/addresses";

/** `first`: who was found to be here before it was drawn. */
export function App({ first }: { first: Session | null }) {
  const entry = useQuery(entryQuery);
  const { session, closed, enter, leave } = useEntry(entry.data, loadAt, first);
  const { pathname } = useLocation();
  if (pathname === PAIR && entry.data) {
    return <PairPlace here={entry.data.session} onEntered={enter} />;
  }
  if (!session) {
    if (!entry.data || entry.data.session) return <Away waiting={entry.failureCount > 0} />;
    return <SignInPlace entry={entry.data} onEntered={enter} />;
  }
  return (
    <SessionContext value={{ session, leave }}>
      {/* Behind the lock nothing of anybody is in the page; what was typed lies sealed on the device. */}
      {closed === "locked" ? null : (
        <div className="places-frame" hidden={closed !== null}>
          <Frame>
            <Routes>
              {PLACES.map(({ path, name, ...more }) => (
                <Route
                  key={path}
                  path={`${path}${"rest" in more ? more.rest : ""}`}
                  element={<Goal name={name} />}
                />
              ))}
              <Route path={ATHLETE.path} element={<Goal name={ATHLETE.name} />} />
              {STEPS.map(({ step, rest, name }) => (
                <Route
                  key={step}
                  path={`/screens/:screen/${step}${rest}`}
                  element={<Goal name={name} />}
                />
              ))}
              <Route path="/" element={<Navigate to={PLACES[0].path} replace />} />
              <Route path="*" element={<NothingHere />} />
            </Routes>
          </Frame>
        </div>
      )}
      {closed ? <SignInAgain session={session} why={closed} onEntered={enter} /> : null}
    </SessionContext>
  );
}

function Goal({ name }: { name: PlaceName }) {
  const { Place } = CODE[name];
  return <Place />;
}
