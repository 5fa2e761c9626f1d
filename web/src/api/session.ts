import { queryOptions } from "@tanstack/react-query";
import { client, type Schema, setToken, take } from "./client";

export type Door = Schema["DoorOut"];
export type Session = Schema["SessionOut"];

export const doorQuery = queryOptions({
  queryKey: ["door"],
  queryFn: async (): Promise<Door> => {
    const door = await take(client.GET("/api/session"));
    setToken(door.session?.token ?? "");
    return door;
  },
  staleTime: Number.POSITIVE_INFINITY,
});

export async function signIn(login: string, password: string): Promise<Session> {
  const session = await take(client.POST("/api/session", { body: { login, password } }));
  setToken(session.token);
  return session;
}

export async function setUp(body: Schema["SetUpInput"]): Promise<Session> {
  const session = await take(client.POST("/api/setup", { body }));
  setToken(session.token);
  return session;
}

export async function signOut(): Promise<void> {
  await take(client.DELETE("/api/session"));
  setToken("");
}
