// What leaves in open formats. Each call is a row of the audit.
import { client, type Schema, take } from "./client";

export type Fhir = "R5" | "R4B";
export type Table = "long" | "wide";
/** Whose: an athlete, or a squad. */
export type Whose = { kind: "athlete" | "squad"; id: string };

export const exportFhir = (screen: string, version: Fhir, named: boolean) =>
  take(
    client.GET("/api/screens/{screen_id}/fhir", {
      params: { path: { screen_id: screen }, query: { version, named } },
      parseAs: "blob",
    }),
  );

export const exportScreenValues = (screen: string, named: boolean) =>
  take(
    client.GET("/api/screens/{screen_id}/values", {
      params: { path: { screen_id: screen }, query: { named } },
      parseAs: "blob",
    }),
  );

export const exportDate = (
  screen: string,
  action: string,
  side: "left" | "right" | null,
  named: boolean,
) =>
  take(
    client.GET("/api/screens/{screen_id}/date", {
      params: {
        path: { screen_id: screen },
        query: { action, named, ...(side ? { side } : {}) },
      },
      parseAs: "blob",
    }),
  );

export const exportValues = ({ kind, id }: Whose, form: Table, named: boolean) =>
  kind === "squad"
    ? take(
        client.GET("/api/squads/{squad_id}/values", {
          params: { path: { squad_id: id }, query: { form, named } },
          parseAs: "blob",
        }),
      )
    : take(
        client.GET("/api/athletes/{athlete_id}/values", {
          params: { path: { athlete_id: id }, query: { named } },
          parseAs: "blob",
        }),
      );

export type Picture = "svg" | "png";

export const exportLine = (
  athlete: string,
  of: { test: string; measure: string; key: string },
  form: Picture,
) =>
  take(
    client.GET("/api/athletes/{athlete_id}/lines", {
      params: { path: { athlete_id: athlete }, query: { ...of, form } },
      parseAs: "blob",
    }),
  );

export interface Coming {
  pieces: ReadableStream<Uint8Array>;
  /** How many files it will hold. */
  files: number;
}

/** An archive as it is made; ended by the signal. */
export async function exportArchive(
  { kind, id }: Whose,
  named: boolean,
  signal: AbortSignal,
): Promise<Coming> {
  const call =
    kind === "squad"
      ? client.GET("/api/squads/{squad_id}/archive", {
          params: { path: { squad_id: id }, query: { named } },
          parseAs: "stream",
          signal,
        })
      : client.GET("/api/athletes/{athlete_id}/archive", {
          params: { path: { athlete_id: id }, query: { named } },
          parseAs: "stream",
          signal,
        });
  const { response } = await call;
  const pieces = (await take(call)) as unknown as ReadableStream<Uint8Array>;
  return { pieces, files: Number(response.headers.get("X-North-Stride-Files") ?? "0") };
}

export type Feed = Schema["FeedOut"];

export const readCalendar = () => take(client.GET("/api/calendar"));

export const makeCalendar = (id: string, named: boolean) =>
  take(client.POST("/api/calendar", { body: { id, named } }));

export const revokeCalendar = () => take(client.DELETE("/api/calendar"));

/** The screen in our own open format. */
export const exportRecord = (screen: string) =>
  take(
    client.GET("/api/screens/{screen_id}/record", {
      params: { path: { screen_id: screen } },
      parseAs: "blob",
    }),
  );
