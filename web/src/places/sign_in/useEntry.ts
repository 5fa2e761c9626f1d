import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useLayoutEffect, useState } from "react";
import { askAs, whenSignedOut } from "../../api/client";
import { type Entry, entryQuery, lockSession, type Session, signOut } from "../../api/session";
import { useStore } from "../../components/base/useStore";
import { leaveBehind, presence, servicesFor, takeBack } from "../../state/device/services";

const LOOK_EVERY_MS = 5000;
const USES = ["pointerdown", "keydown", "wheel", "touchstart"] as const;

/** Why the places are out of sight: the session has ended, or nobody was here for a while. */
export type Closed = "ended" | "locked";

/** All that was asked for whoever was here; the entry itself stays, and is asked anew. */
function forget(queries: QueryClient): void {
  queries.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== entryQuery.queryKey[0] });
}

type LoadAt = (address: string) => Promise<void>;

/** The server says who is here; a page that is opened again is no hand at the device. */
async function admit(found: Session, loadAt: LoadAt): Promise<Session> {
  // The code of the place first: then it stands there at once. One that fails is tried again there.
  const code = loadAt(window.location.pathname).catch(() => undefined);
  await Promise.all([takeBack(found), code]);
  presence.admitted();
  presence.look(found.idle_minutes);
  return found;
}

/** Who is here as the page begins, for it to be drawn once; null where that is still to be found out. */
export async function firstSession(entry: Promise<Entry>, loadAt: LoadAt): Promise<Session | null> {
  const found = (await entry.catch(() => null))?.session;
  return found && !presence.leftUnknown ? admit(found, loadAt) : null;
}

/** Who is here, in this tab and the others: entering, leaving, locking, and somebody else coming. */
export function useEntry(entry: Entry | undefined, loadAt: LoadAt, first: Session | null) {
  const queries = useQueryClient();
  const [session, setSession] = useState<Session | null>(first);
  const [ended, setEnded] = useState(false);
  const [asked, setAsked] = useState(0);
  const locked = useStore(presence.locked);

  /** Asks who is here; the answer opens the places even where it is the one known before. */
  const ask = useCallback(async () => {
    await queries.refetchQueries(entryQuery);
    setAsked((times) => times + 1);
  }, [queries]);

  /** Away with everything of whoever was here; then the entry says who is. */
  const drop = useCallback(async () => {
    // From now on nothing asks as them, and what is answered to what they asked says nothing here.
    askAs(null);
    await leaveBehind();
    setSession(null);
    setEnded(false);
    forget(queries);
    await ask();
  }, [queries, ask]);

  const enter = useCallback(
    async (next: Session) => {
      const other = session !== null && session.user_id !== next.user_id;
      if (other) {
        await leaveBehind();
        forget(queries);
      }
      await takeBack(next);
      presence.entered(next.user_id);
      setEnded(false);
      setSession(next);
      servicesFor(next).sender.wake();
      void queries.invalidateQueries();
    },
    [session, queries],
  );

  const leave = useCallback(async () => {
    await leaveBehind();
    presence.left(await signOut());
    setSession(null);
    forget(queries);
    window.location.assign("/");
  }, [queries]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: each answer opens, a same one too.
  useLayoutEffect(() => {
    const found = entry?.session;
    if (!found) return;
    const open = async () => {
      if (presence.leftUnknown) {
        // They left while the server was away: that comes first, then anybody may come in.
        presence.left(await signOut());
        await queries.refetchQueries(entryQuery);
        return;
      }
      await admit(found, loadAt);
      setEnded(false);
      setSession(found);
    };
    void open();
  }, [entry, asked, queries, loadAt]);

  useEffect(() => whenSignedOut((another) => (another ? void drop() : setEnded(true))), [drop]);
  useEffect(
    () =>
      presence.onOther((who) => {
        if (session && who !== session.user_id) void drop();
        else void ask();
      }),
    [session, drop, ask],
  );
  useIdleLock(session, locked);
  useEffect(() => {
    if (!locked) return;
    const closeDown = async () => {
      await leaveBehind();
      forget(queries);
      if (!(await lockSession())) presence.owesLeaving();
    };
    void closeDown();
  }, [locked, queries]);

  const closed: Closed | null = ended ? "ended" : locked ? "locked" : null;
  return { session, closed, enter, leave };
}

/** Counts what hands do, in any tab; what a page asks by itself is no use. */
function useIdleLock(session: Session | null, closed: boolean): void {
  const minutes = session?.idle_minutes;
  useEffect(() => {
    if (minutes === undefined || closed) return;
    const use = () => presence.used();
    for (const kind of USES) window.addEventListener(kind, use, { passive: true, capture: true });
    const timer = setInterval(() => presence.look(minutes), LOOK_EVERY_MS);
    return () => {
      clearInterval(timer);
      for (const kind of USES) window.removeEventListener(kind, use, { capture: true });
    };
  }, [minutes, closed]);
}
