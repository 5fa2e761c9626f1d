import { QueryClient } from "@tanstack/react-query";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Problem } from "./problem";

const ENDED = { type: "urn:north-stride:problem:not-signed-in", title: "Sign in.", faults: [] };
const refusal = () =>
  new Response(JSON.stringify(ENDED), {
    status: 401,
    headers: { "Content-Type": "application/problem+json" },
  });

beforeEach(() => {
  vi.stubGlobal("window", { location: { origin: "http://127.0.0.1:8600" } });
  vi.resetModules();
});

afterEach(() => vi.unstubAllGlobals());

describe("a session that has ended", () => {
  it("is told once, by what was asked in it", async () => {
    vi.stubGlobal("fetch", async () => refusal());
    const { askAs, client, take, whenSignedOut } = await import("./client");
    const told = vi.fn();
    whenSignedOut(told);
    askAs({ token: "first", user_id: "u" });
    await expect(take(client.GET("/api/day"))).rejects.toMatchObject({ code: "not-signed-in" });
    expect(told).toHaveBeenCalledWith(false);
  });

  it("says nothing of the one that has begun since", async () => {
    let answer: (response: Response) => void = () => {};
    vi.stubGlobal("fetch", () => new Promise<Response>((resolve) => (answer = resolve)));
    const { askAs, client, take, whenSignedOut } = await import("./client");
    const told = vi.fn();
    whenSignedOut(told);
    askAs({ token: "first", user_id: "u" });
    const late = take(client.GET("/api/day")).catch((error: Problem) => error.code);
    await new Promise((resolve) => setTimeout(resolve));
    askAs({ token: "second", user_id: "u" });
    answer(refusal());
    expect(await late).toBe("not-signed-in");
    expect(told).not.toHaveBeenCalled();
  });

  it("is not what the entry says to somebody who has come in since", async () => {
    const answers: ((response: Response) => void)[] = [];
    vi.stubGlobal("fetch", () => new Promise<Response>((resolve) => answers.push(resolve)));
    const { askAs, asker } = await import("./client");
    const { entryQuery } = await import("./session");
    const entry = (session: object | null) => Response.json({ has_owner: true, session });
    const asked = new QueryClient().fetchQuery(entryQuery);
    await vi.waitFor(() => expect(answers).toHaveLength(1));
    askAs({ token: "second", user_id: "u" });
    answers[0]?.(entry(null));
    await vi.waitFor(() => expect(answers).toHaveLength(2));
    expect(asker()).toBe("second");
    answers[1]?.(entry({ token: "second", user_id: "u" }));
    expect((await asked).session?.token).toBe("second");
    expect(asker()).toBe("second");
  });
});
