// A server of a few lines: what is asked is kept, and answered by the first that knows the address.
import { vi } from "vitest";

interface Asked {
  method: string;
  path: string;
  body: unknown;
}
type Handler = (asked: Asked) => Response | null;

export const json = (body: unknown, status = 200): Response =>
  new Response(body === null ? null : JSON.stringify(body), {
    status,
    headers: { "Content-Type": status < 400 ? "application/json" : "application/problem+json" },
  });

export const problem = (code: string, title: string, status = 409, more: object = {}): Response =>
  json({ type: `urn:north-stride:problem:${code}`, title, status, ...more }, status);

export function serve(handler: Handler): Asked[] {
  const asked: Asked[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    const text = await request.clone().text();
    const one = {
      method: request.method,
      path: new URL(request.url).pathname,
      body: text ? JSON.parse(text) : null,
    };
    asked.push(one);
    return handler(one) ?? problem("not-found", "Nothing is here.", 404);
  });
  return asked;
}
