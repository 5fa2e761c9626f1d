import { queryOptions } from "@tanstack/react-query";
import { atScreen, client, type Schema, take } from "./client";
import { clockFor } from "./device_clock";
import { early } from "./early";

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
export type Fact = Schema["FactOut"];
export type Route = Schema["RouteOut"];
export type Stop = Schema["StopOut"];
export type Offer = Schema["OfferOut"];

export const readScreen = (id: string) =>
  take(client.GET("/api/screens/{screen_id}", atScreen(id)));

export const screenQuery = (id: string) =>
  queryOptions({
    queryKey: ["screen", id],
    queryFn: () => early(`screen ${id}`, () => readScreen(id)),
  });

export const beginScreen = (body: Schema["ScreenInput"]) =>
  take(client.POST("/api/screens", { body }));

export type Written = Schema["WrittenOut"];
export type Clash = Schema["ClashOut"];

/** `clock`: this device's time at sending, so that what it wrote is ordered by the server's. */
export const writeAnswers = (screen: string, answers: Answer[], device: string, clock: string) =>
  take(
    client.POST("/api/screens/{screen_id}/answers", {
      ...atScreen(screen),
      body: { answers, device, clock },
    }),
  );

/** Where this device is: said again and again while it is there. */
export const sayWhere = (screen: string, body: Schema["WhereInput"], signal: AbortSignal) =>
  take(client.POST("/api/screens/{screen_id}/presence", { ...atScreen(screen), body, signal }));

export const readChanges = (screen: string, after: number, device: string, signal: AbortSignal) =>
  take(
    client.GET("/api/screens/{screen_id}/changes", {
      params: { path: { screen_id: screen }, query: { after, device } },
      signal,
    }),
  );

export const preview = (screen: string, answers: Answer[], device: string, signal: AbortSignal) =>
  take(
    client.POST("/api/screens/{screen_id}/preview", {
      ...atScreen(screen),
      body: { answers, device, clock: clockFor(answers) },
      signal,
    }),
  );

/** With what is done on it; it follows what is told and recorded. */
export const routeQuery = (id: string) =>
  queryOptions({
    queryKey: ["route", id],
    queryFn: () => take(client.GET("/api/screens/{screen_id}/route", atScreen(id))),
  });

/** `undo` names the undoing. */
export const undoArrangement = (screen: string, step: string, undo: string) =>
  take(
    client.POST("/api/screens/{screen_id}/arrangements/{arrangement_id}/undo", {
      params: { path: { screen_id: screen, arrangement_id: step } },
      body: { id: undo },
    }),
  );

export const arrangeAction = (screen: string, body: Schema["ArrangeInput"]) =>
  take(client.POST("/api/screens/{screen_id}/arrangements", { ...atScreen(screen), body }));

export const screensQuery = (athlete: string) =>
  queryOptions({
    queryKey: ["screens", athlete],
    queryFn: () => take(client.GET("/api/screens", { params: { query: { athlete } } })),
  });

export const overrideGate = (screen: string, body: Schema["OverrideInput"]) =>
  take(client.POST("/api/screens/{screen_id}/overrides", { ...atScreen(screen), body }));

/** On the signature that is shown: with a reason and the password. */
export const amendScreen = (screen: string, body: Schema["AmendInput"]) =>
  take(client.POST("/api/screens/{screen_id}/amendments", { ...atScreen(screen), body }));
