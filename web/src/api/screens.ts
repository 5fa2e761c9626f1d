import { queryOptions } from "@tanstack/react-query";
import { client, type Schema, type Side, take } from "./client";

export type Screen = Schema["ScreenOut"];
export type ScreenLine = Schema["ScreenLine"];
export type Answer = Schema["AnswerInput"];
export type Reading = Schema["ReadingOut"];
export type Flag = Schema["FlagOut"];
export type Difference = Schema["DifferenceOut"];
export type Changes = Schema["ChangesOut"];
export type HistoryLine = Schema["AnswerOut"];
export type Preview = Schema["PreviewOut"];
export type Identity = Schema["IdentityOut"];
export type Signed = Schema["SignedOut"];
export type CheckedFile = Schema["CheckedFileOut"];

const at = (screen: string) => ({ params: { path: { screen_id: screen } } });

export const screenQuery = (id: string) =>
  queryOptions({
    queryKey: ["screen", id],
    queryFn: () => take(client.GET("/api/screens/{screen_id}", at(id))),
  });

export const readingQuery = (id: string) =>
  queryOptions({
    queryKey: ["reading", id],
    queryFn: () => take(client.GET("/api/screens/{screen_id}/reading", at(id))),
  });

export const screensQuery = (athlete: string) =>
  queryOptions({
    queryKey: ["screens", athlete],
    queryFn: () => take(client.GET("/api/screens", { params: { query: { athlete } } })),
  });

export const signatureQuery = (screen: string, number: number) =>
  queryOptions({
    queryKey: ["signature", screen, number],
    queryFn: () =>
      take(
        client.GET("/api/screens/{screen_id}/signatures/{number}", {
          params: { path: { screen_id: screen, number } },
        }),
      ),
    // Signed: it never changes.
    staleTime: Number.POSITIVE_INFINITY,
  });

interface HistoryPlace {
  test: string;
  side: Side | null;
  key: string;
  field: string;
}

export const historyQuery = (screen: string, { test, side, key, field }: HistoryPlace) =>
  queryOptions({
    queryKey: ["history", screen, test, side, key, field],
    queryFn: () =>
      take(
        client.GET("/api/screens/{screen_id}/history", {
          params: {
            path: { screen_id: screen },
            query: { test, key, field, ...(side ? { side } : {}) },
          },
        }),
      ),
    staleTime: 0,
  });

export const beginScreen = (body: Schema["ScreenInput"]) =>
  take(client.POST("/api/screens", { body }));

export const writeAnswers = (screen: string, answers: Answer[], device: string) =>
  take(
    client.POST("/api/screens/{screen_id}/answers", { ...at(screen), body: { answers, device } }),
  );

export const readChanges = (screen: string, after: number) =>
  take(
    client.GET("/api/screens/{screen_id}/changes", {
      params: { path: { screen_id: screen }, query: { after } },
    }),
  );

export const preview = (screen: string, answers: Answer[], signal: AbortSignal) =>
  take(
    client.POST("/api/screens/{screen_id}/preview", { ...at(screen), body: { answers }, signal }),
  );

export const signScreen = (screen: string, shown: Identity, password: string) =>
  take(client.POST("/api/screens/{screen_id}/sign", { ...at(screen), body: { shown, password } }));

export const moveScreen = (screen: string, body: Schema["MoveInput"]) =>
  take(client.POST("/api/screens/{screen_id}/move", { ...at(screen), body }));

export const amendScreen = (screen: string, body: Schema["AmendInput"]) =>
  take(client.POST("/api/screens/{screen_id}/amendments", { ...at(screen), body }));

export const arrangeAction = (screen: string, body: Schema["ArrangeInput"]) =>
  take(client.POST("/api/screens/{screen_id}/arrangements", { ...at(screen), body }));

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

export const exportRecord = (screen: string) =>
  take(client.GET("/api/screens/{screen_id}/record", { ...at(screen), parseAs: "blob" }));
