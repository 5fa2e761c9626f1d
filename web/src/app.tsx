import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Navigate, Route, Routes } from "react-router";
import { whenSignedOut } from "./api/client";
import { doorQuery, type Session } from "./api/session";
import { Away } from "./components/Away";
import { SessionContext } from "./components/session";
import { BenchPlace } from "./places/bench/BenchPlace";
import { SignInAgain } from "./places/door/SignInAgain";
import { SignInPlace } from "./places/door/SignInPlace";
import { PeoplePlace } from "./places/people/PeoplePlace";
import { ReadingPlace } from "./places/reading/ReadingPlace";
import { TeamPlace } from "./places/team/TeamPlace";
import { servicesFor } from "./state/device_services";

export function App() {
  const door = useQuery(doorQuery);
  const queries = useQueryClient();
  const [session, setSession] = useState<Session | null>(null);
  const [expired, setExpired] = useState(false);

  useEffect(() => whenSignedOut(() => setExpired(true)), []);
  useEffect(() => {
    if (door.data?.session) setSession(door.data.session);
  }, [door.data]);

  const enter = (next: Session) => {
    // Somebody else at the same device starts afresh; what waits here stays the first one's.
    if (session && session.user_id !== next.user_id) queries.clear();
    setExpired(false);
    setSession(next);
    servicesFor({ clinic: next.clinic_id, user: next.user_id }).sender.wake();
    void queries.invalidateQueries();
  };

  if (!session && door.isPending) return <Away waiting={door.failureCount > 0} />;
  if (!session) {
    if (!door.data || door.data.session) return <Away waiting={door.isError} />;
    return <SignInPlace door={door.data} onEntered={enter} />;
  }
  return (
    <SessionContext value={session}>
      <Routes>
        <Route path="/" element={<Navigate to="/people" replace />} />
        <Route path="/people" element={<PeoplePlace />} />
        <Route path="/team" element={<TeamPlace />} />
        <Route path="/screens/:screen/bench" element={<BenchPlace />} />
        <Route path="/screens/:screen/bench/:test" element={<BenchPlace />} />
        <Route path="/screens/:screen/reading" element={<ReadingPlace />} />
        <Route path="*" element={<Navigate to="/people" replace />} />
      </Routes>
      {expired ? <SignInAgain session={session} onEntered={enter} /> : null}
    </SessionContext>
  );
}
