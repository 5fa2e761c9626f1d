import { useQuery } from "@tanstack/react-query";
import { Navigate, Route, Routes, useLocation } from "react-router";
import { doorQuery } from "./api/session";
import { Away } from "./components/Away";
import { NothingHere } from "./components/NothingHere";
import { Frame } from "./components/Shell";
import { SessionContext } from "./components/session";
import { PairPlace, SignInAgain, SignInPlace } from "./places/door";
import { useDoor } from "./places/door/useDoor";
import { CODE } from "./places/map";
import { ATHLETE, PAIR, PLACES, type PlaceName, STEPS } from "./state/addresses";

export function App() {
  const door = useQuery(doorQuery);
  const { session, closed, enter, leave } = useDoor(door.data);
  const { pathname } = useLocation();
  if (pathname === PAIR && door.data) {
    return <PairPlace here={door.data.session} onEntered={enter} />;
  }
  if (!session) {
    if (!door.data || door.data.session) return <Away waiting={door.failureCount > 0} />;
    return <SignInPlace door={door.data} onEntered={enter} />;
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
