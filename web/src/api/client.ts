// The one way to the server: typed from its own description, with the session's token on each call.
import createClient from "openapi-fetch";
import { type Fault, Problem } from "./problem";
import type { components, paths } from "./schema";

export type Schema = components["schemas"];
export type Side = "left" | "right";

const TOKEN_HEADER = "X-North-Stride-Token";
let token = "";
let onSignedOut: () => void = () => {};

export function setToken(next: string): void {
  token = next;
}

export function whenSignedOut(callback: () => void): void {
  onSignedOut = callback;
}

async function reach(request: Request): Promise<Response> {
  try {
    return await fetch(request);
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    throw new Problem(0, "no-server", "The server does not answer.");
  }
}

export const client = createClient<paths>({ baseUrl: window.location.origin, fetch: reach });
client.use({
  onRequest({ request }) {
    if (token) request.headers.set(TOKEN_HEADER, token);
    return request;
  },
});

function problemFrom(body: unknown, status: number): Problem {
  const said = typeof body === "object" && body !== null ? (body as Record<string, unknown>) : {};
  const code = String(said.type ?? "").replace("urn:north-stride:problem:", "") || "unexpected";
  const faults = Array.isArray(said.faults) ? (said.faults as Fault[]) : [];
  return new Problem(status, code, String(said.title ?? "Something went wrong."), faults);
}

/** The answer's content, or a Problem thrown. */
export async function take<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  const { data, error, response } = await call;
  if (response.ok) return data as T;
  const problem = problemFrom(error, response.status);
  if (problem.code === "not-signed-in") onSignedOut();
  throw problem;
}
