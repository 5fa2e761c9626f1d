// What the first place needs, asked for at once instead of one thing after the other.
import type { QueryClient } from "@tanstack/react-query";
import { catalogueQuery } from "../api/catalogue";
import { screenQuery } from "../api/screens";
import { doorQuery } from "../api/session";
import { loadAt, screenIn } from "./map";

export function beginAt(address: string, queries: QueryClient): void {
  void queries.prefetchQuery(doorQuery);
  loadAt(address);
  const screen = screenIn(address);
  if (!screen) return;
  const quietly = { retry: false };
  void queries.prefetchQuery({ ...catalogueQuery, ...quietly });
  void queries.prefetchQuery({ ...screenQuery(screen), ...quietly });
}
