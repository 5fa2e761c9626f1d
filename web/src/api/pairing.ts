import { queryOptions } from "@tanstack/react-query";
import { client, take } from "./client";
import { withinPoll } from "./polling";

export const makePairing = (id: string, screen: string | null) =>
  take(client.POST("/api/pairings", { body: { id, screen_id: screen } }));

const AGAIN_MS = 2000;

/** Whether a device came with the code. */
export const pairingQuery = (id: string) =>
  queryOptions({
    queryKey: ["pairing", id],
    queryFn: ({ signal }) =>
      take(
        client.GET("/api/pairings/{pairing_id}", {
          params: { path: { pairing_id: id } },
          signal: withinPoll(signal),
        }),
      ),
    refetchInterval: ({ state }) => (state.data?.used ? false : AGAIN_MS),
    gcTime: 0,
  });
