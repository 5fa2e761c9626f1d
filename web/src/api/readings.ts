import { queryOptions } from "@tanstack/react-query";
import { atScreen, client, take } from "./client";

export const readingQuery = (id: string) =>
  queryOptions({
    queryKey: ["reading", id],
    queryFn: () => take(client.GET("/api/screens/{screen_id}/reading", atScreen(id))),
  });
