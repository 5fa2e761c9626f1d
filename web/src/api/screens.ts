import { queryOptions } from "@tanstack/react-query";
import { atScreen, client, type Schema, take } from "./client";

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

export const screenQuery = (id: string) =>
  queryOptions({
    queryKey: ["screen", id],
    queryFn: () => take(client.GET("/api/screens/{screen_id}", atScreen(id))),
  });

export const writeAnswers = (screen: string, answers: Answer[], device: string) =>
  take(
    client.POST("/api/screens/{screen_id}/answers", {
      ...atScreen(screen),
      body: { answers, device },
    }),
  );
