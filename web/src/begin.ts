// What the first place needs, asked for at once instead of one thing after the other.
import type { QueryClient } from "@tanstack/react-query";
import { catalogueQuery } from "./api/catalogue";
import { screenQuery } from "./api/screens";
import { entryQuery } from "./api/session";
import { loadAll, loadAt } from "./place_code";
import { loadSignIn } from "./places/sign_in";
import { screenIn } from "./state/domain/addresses";

const REST_AFTER_MS = 3000;

export function beginAt(address: string, queries: QueryClient): void {
  void queries.prefetchQuery(entryQuery);
  // One that fails is tried again where it is shown.
  loadAt(address).catch(() => undefined);
  setTimeout(() => void Promise.allSettled([loadSignIn(), loadAll()]), REST_AFTER_MS);
  const screen = screenIn(address);
  if (!screen) return;
  const quietly = { retry: false };
  void queries.prefetchQuery({ ...catalogueQuery, ...quietly });
  void queries.prefetchQuery({ ...screenQuery(screen), ...quietly });
}
