// What the Bench asks the server.
import { queryOptions } from "@tanstack/react-query";
import { atScreen, client, type Schema, type Side, take } from "../../api/client";
import type { Answer } from "../../api/screens";

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

export const readChanges = (screen: string, after: number) =>
  take(
    client.GET("/api/screens/{screen_id}/changes", {
      params: { path: { screen_id: screen }, query: { after } },
    }),
  );

export const overrideGate = (screen: string, body: Schema["OverrideInput"]) =>
  take(client.POST("/api/screens/{screen_id}/overrides", { ...atScreen(screen), body }));

export const preview = (screen: string, answers: Answer[], signal: AbortSignal) =>
  take(
    client.POST("/api/screens/{screen_id}/preview", {
      ...atScreen(screen),
      body: { answers },
      signal,
    }),
  );
