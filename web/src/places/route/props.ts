// What every part of Route is given.
import type { Route } from "../../api/screens";
import type { Opened } from "../../components/screen/OpenScreen";

export interface RouteProps extends Opened {
  route: Route;
  planned: readonly string[];
  /** Tests somebody left out. */
  out: ReadonlySet<string>;
  /** Tests of which something is recorded. */
  done: ReadonlySet<string>;
  /** Why is not shown before a stop is done. */
  reasonsAfter: boolean;
}
