import { queryOptions } from "@tanstack/react-query";
import { askAs, asker, client, type Schema, take } from "./client";
import { early } from "./early";

export type Entry = Schema["DoorOut"];
export type Session = Schema["SessionOut"];

/** Who is there. Where somebody came in or left meanwhile, that answer is of before: the entry is asked again. */
export async function whoIsHere(): Promise<Entry> {
  const before = asker();
  const entry = await take(client.GET("/api/session"));
  if (asker() !== before) return whoIsHere();
  askAs(entry.session);
  return entry;
}

export const entryQuery = queryOptions({
  queryKey: ["entry"],
  queryFn: () => early("entry", whoIsHere),
  staleTime: Number.POSITIVE_INFINITY,
});

export async function signIn(login: string, password: string): Promise<Session> {
  const session = await take(client.POST("/api/session", { body: { login, password } }));
  askAs(session);
  return session;
}

export async function setUp(body: Schema["SetUpInput"]): Promise<Session> {
  const session = await take(client.POST("/api/setup", { body }));
  askAs(session);
  return session;
}

/** Whose code this is. It stays unused: a hand decides. */
export const lookAtPairing = (code: string): Promise<Schema["PairingOfOut"]> =>
  take(client.POST("/api/session/pair/look", { body: { code } }));

/** In as whoever made the code, with a session of this device's own. */
export async function pairDevice(code: string): Promise<Schema["PairedOut"]> {
  const paired = await take(client.POST("/api/session/pair", { body: { code } }));
  askAs(paired.session);
  return paired;
}

/** Whether the server knows of it: it may be away, or know of no session any more. */
export const signOut = (): Promise<boolean> => end("left");

/** The same for a device that nobody is at: those it took along go on. */
export const lockSession = (): Promise<boolean> => end("locked");

async function end(how: "left" | "locked"): Promise<boolean> {
  const { error, response } = await client
    .DELETE("/api/session", { params: { query: { how } } })
    .catch(() => ({ error: true, response: null }));
  askAs(null);
  return !error || response?.status === 401;
}
