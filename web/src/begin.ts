// What the first place needs, asked for at once instead of one thing after the other.
import type { QueryClient } from "@tanstack/react-query";
import { catalogueQuery } from "./api/catalogue";
import { screenQuery } from "./api/screens";
import { entryQuery, type Session } from "./api/session";
import { loadAll, loadAt } from "./place_code";
import { loadSignIn } from "./places/sign_in";
import { firstSession } from "./places/sign_in/useEntry";
import { screenIn } from "./state/domain/addresses";

const REST_AFTER_MS = 3000;
// What is not there by then is waited for in sight.
const DRAWN_WITHIN_MS = 600;

/** Who is here, once all that the first place shows is there: it is drawn once then, and not piece by piece. */
export async function beginAt(
  address: string,
  queries: QueryClient,
  kept: Promise<unknown>,
): Promise<Session | null> {
  const quietly = { retry: false };
  const entry = queries.fetchQuery({ ...entryQuery, ...quietly });
  // Whoever shows it asks again.
  entry.catch(() => undefined);
  // One that fails is tried again where it is shown.
  const code = loadAt(address).catch(() => undefined);
  setTimeout(() => void Promise.allSettled([loadSignIn(), loadAll()]), REST_AFTER_MS);
  const screen = screenIn(address);
  const shown = screen
    ? [
        queries.prefetchQuery({ ...catalogueQuery, ...quietly }),
        queries.prefetchQuery({ ...screenQuery(screen), ...quietly }),
      ]
    : [];
  const first = kept.then(() => firstSession(entry, loadAt));
  const late = new Promise<null>((go) => setTimeout(() => go(null), DRAWN_WITHIN_MS));
  const [found] = await Promise.race([
    Promise.all([first, code, ...shown] as const),
    late.then(() => [null] as const),
  ]);
  // Without it nothing of this device may be asked for.
  await kept;
  return found;
}
