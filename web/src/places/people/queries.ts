// What People asks and tells the server.
import { queryOptions } from "@tanstack/react-query";
import type { AthleteInput } from "../../api/athletes";
import { client, type Schema, take } from "../../api/client";

/** The file's text goes as it is: the server names faults by their place in it. */
const asFile = (text: string) => ({
  body: text as never,
  bodySerializer: (body: unknown) => body as string,
  headers: { "Content-Type": "application/json" },
});

/** Whose file it is. Takes nothing. */
export const checkRecord = (text: string) => take(client.POST("/api/records/check", asFile(text)));

/** For the athlete who was shown, or a new one of this name. */
export const importRecord = (text: string, whose: { athlete?: string; name?: string }) =>
  take(client.POST("/api/records", { ...asFile(text), params: { query: whose } }));

export const squadsQuery = queryOptions({
  queryKey: ["squads"],
  queryFn: () => take(client.GET("/api/squads")),
});

export const addAthlete = (body: AthleteInput) => take(client.POST("/api/athletes", { body }));

export const addSquad = (id: string, name: string) =>
  take(client.POST("/api/squads", { body: { id, name } }));

export const editSquad = (id: string, body: Schema["SquadEdit"]) =>
  take(client.PATCH("/api/squads/{squad_id}", { params: { path: { squad_id: id } }, body }));
