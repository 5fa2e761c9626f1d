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

export type Merged = Schema["MergedOut"];
export type MergePreview = Schema["MergePreview"];

const atAthlete = (athlete: string) => ({ params: { path: { athlete_id: athlete } } });

/** What bringing two together would do. Changes nothing. */
export const mergeQuery = (athlete: string, gone: string) =>
  queryOptions({
    queryKey: ["merge", athlete, gone],
    queryFn: () =>
      take(
        client.GET("/api/athletes/{athlete_id}/merge", {
          params: { path: { athlete_id: athlete }, query: { gone } },
        }),
      ),
    gcTime: 0,
  });

export const mergesQuery = (athlete: string) =>
  queryOptions({
    queryKey: ["merges", athlete],
    queryFn: () => take(client.GET("/api/athletes/{athlete_id}/merges", atAthlete(athlete))),
  });

export const mergeAthletes = (athlete: string, body: Schema["MergeInput"]) =>
  take(client.POST("/api/athletes/{athlete_id}/merge", { ...atAthlete(athlete), body }));

export const undoMerge = (athlete: string, body: Schema["UndoMergeInput"]) =>
  take(client.POST("/api/athletes/{athlete_id}/merge/undo", { ...atAthlete(athlete), body }));
