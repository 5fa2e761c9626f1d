// The one way to the server: typed from its own description, with the session's token on each call.
import createClient from "openapi-fetch";
import { type Fault, Problem } from "./problem";
import type { components, paths } from "./schema";

export type Schema = components["schemas"];
export type Side = "left" | "right";

const TOKEN_HEADER = "X-North-Stride-Token";
// Whose page this is: the server answers nobody else's with what it holds.
const USER_HEADER = "X-North-Stride-User";

// How long no hand was at this device: what a page asks by itself keeps no session alive.
const IDLE_HEADER = "X-North-Stride-Idle";
let idleMs: () => number = () => 0;

export function measureIdle(measure: () => number): void {
  idleMs = measure;
}

let asking: { token: string; user: string } | null = null;
const MOST_IDLE_MS = 86_400_000;
let onSignedOut: (another: boolean) => void = () => {};

export function askAs(session: { token: string; user_id: string } | null): void {
  asking = session && { token: session.token, user: session.user_id };
}

/** The session that asks: another one after every way in or out. */
export const asker = () => asking?.token ?? null;

/** Told when the session has ended, or when somebody else's runs on this device. */
export function whenSignedOut(callback: (another: boolean) => void): () => void {
  onSignedOut = callback;
  return () => {
    onSignedOut = () => {};
  };
}

async function reach(request: Request): Promise<Response> {
  try {
    return await fetch(request);
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    throw new Problem(0, "no-server", "The server does not answer.");
  }
}

// Answers to what an earlier session asked: what they say of it says nothing of the one that runs now.
const ofAnother = new WeakSet<Response>();

export const client = createClient<paths>({ baseUrl: window.location.origin, fetch: reach });
client.use({
  onRequest({ request }) {
    request.headers.set(IDLE_HEADER, String(Math.floor(Math.min(idleMs(), MOST_IDLE_MS) / 1000)));
    if (asking) {
      request.headers.set(TOKEN_HEADER, asking.token);
      // The entry tells who is there; every other call is somebody's own.
      if (!request.url.endsWith("/api/session")) request.headers.set(USER_HEADER, asking.user);
    }
    return request;
  },
  onResponse({ request, response }) {
    const sent = request.headers.get(TOKEN_HEADER);
    if (sent !== null && sent !== asking?.token) ofAnother.add(response);
    return undefined;
  },
});

function problemFrom(body: unknown, status: number): Problem {
  const said = typeof body === "object" && body !== null ? (body as Record<string, unknown>) : {};
  const code = String(said.type ?? "").replace("urn:north-stride:problem:", "") || "unexpected";
  const faults = Array.isArray(said.faults) ? (said.faults as Fault[]) : [];
  const changed = Array.isArray(said.changed) ? (said.changed as string[]) : [];
  return new Problem(status, code, String(said.title ?? "Something went wrong."), faults, changed);
}

/** The answer's content, or a Problem thrown. */
export async function take<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  const { data, error, response } = await call;
  if (response.ok) return data as T;
  const problem = problemFrom(error, response.status);
  if (ofAnother.has(response)) throw problem;
  if (problem.code === "not-signed-in") onSignedOut(false);
  if (problem.code === "another-user") onSignedOut(true);
  throw problem;
}

/** Where a call about one screen goes. */
export const atScreen = (screen: string) => ({ params: { path: { screen_id: screen } } });
