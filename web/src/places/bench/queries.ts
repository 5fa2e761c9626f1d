// What the Bench asks the server.
import { queryOptions } from "@tanstack/react-query";
import { client, type Side, take } from "../../api/client";

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
