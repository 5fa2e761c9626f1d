import { Link } from "react-router";
import { PLACES } from "../../state/domain/addresses";
import { Shell } from "./Shell";

/** One page for every address where nothing is: mistyped, ended, or never there. */
export function NothingHere() {
  return (
    <Shell>
      <div className="away">
        <h1>Nothing is here</h1>
        <p>There is nothing at this address, or nothing of this clinic.</p>
        <Link className="btn btn-primary" to={PLACES[0].path}>
          {PLACES[0].name}
        </Link>
      </div>
    </Shell>
  );
}
