import { queryOptions } from "@tanstack/react-query";
import { client, take } from "../../api/client";

/** How a test is read: of the app as it is shipped, so it never changes under a page. */
export const howReadQuery = (code: string) =>
  queryOptions({
    queryKey: ["how read", code],
    queryFn: () => take(client.GET("/api/catalogue/tests/{code}", { params: { path: { code } } })),
    staleTime: Number.POSITIVE_INFINITY,
  });
