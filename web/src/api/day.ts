import { queryOptions } from "@tanstack/react-query";
import { client, type Schema, take } from "./client";
import { withinPoll } from "./polling";

export type Day = Schema["DayOut"];
export type DueAction = Schema["DueActionOut"];
export type OpenScreen = Schema["OpenScreenOut"];

const AGAIN_MS = 30_000;
// What is being read is not known yet: looked at again until it is.
const READ_AGAIN_MS = 1500;
// A number without names costs little, and what cannot wait should not wait to be seen.
const COUNTED_AGAIN_MS = 10_000;

/** What is done about an action changes both: they share the first part of their key. */
export const DAY_KEY = ["day"];

export const dayQuery = queryOptions({
  queryKey: [...DAY_KEY, "whole"],
  queryFn: ({ signal }) => take(client.GET("/api/day", { signal: withinPoll(signal) })),
  refetchInterval: ({ state }) => (state.data?.being_read ? READ_AGAIN_MS : AGAIN_MS),
});

/** How many urgent actions nobody has in hand: seen from everywhere. */
export const urgentCountQuery = queryOptions({
  queryKey: [...DAY_KEY, "urgent"],
  queryFn: ({ signal }) => take(client.GET("/api/day/urgent", { signal: withinPoll(signal) })),
  staleTime: COUNTED_AGAIN_MS / 2,
  refetchInterval: COUNTED_AGAIN_MS,
});
