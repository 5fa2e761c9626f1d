// What Reading asks and tells the server.
import { queryOptions } from "@tanstack/react-query";
import { atScreen, client, type Schema, take } from "../../api/client";
import type { Identity } from "../../api/screens";

/** How much each sign says. It follows the answers: asked anew for each revision. */
export const evidenceQuery = (screen: string, revision: number, start: number | null) =>
  queryOptions({
    queryKey: ["evidence", screen, revision, start],
    queryFn: () =>
      take(
        client.GET("/api/screens/{screen_id}/evidence", {
          params: { path: { screen_id: screen }, query: start === null ? {} : { start } },
        }),
      ),
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

export const todayQuery = (screen: string, number: number) =>
  queryOptions({
    queryKey: ["signature today", screen, number],
    queryFn: () =>
      take(
        client.GET("/api/screens/{screen_id}/signatures/{number}/today", {
          params: { path: { screen_id: screen, number } },
        }),
      ),
  });

export const signScreen = (screen: string, shown: Identity, password: string) =>
  take(
    client.POST("/api/screens/{screen_id}/sign", {
      ...atScreen(screen),
      body: { shown, password },
    }),
  );

export const moveScreen = (screen: string, body: Schema["MoveInput"]) =>
  take(client.POST("/api/screens/{screen_id}/move", { ...atScreen(screen), body }));
