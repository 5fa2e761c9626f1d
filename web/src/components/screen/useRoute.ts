import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { type Route, routeQuery } from "../../api/screens";
import type { Bench } from "../../state/screen/bench";
import { useStore } from "../base/useStore";

/** The route of a screen, asked again whenever something the server has of it changes. */
export function useRoute(bench: Bench, id: string): Route | null {
  const queries = useQueryClient();
  const fields = useStore(bench.state, (state) => state.fields);
  const route = useQuery({ ...routeQuery(id), staleTime: Number.POSITIVE_INFINITY });
  // biome-ignore lint/correctness/useExhaustiveDependencies: whenever the server has something else
  useEffect(() => {
    void queries.invalidateQueries({ queryKey: routeQuery(id).queryKey });
  }, [fields, id, queries]);
  return route.data ?? null;
}
