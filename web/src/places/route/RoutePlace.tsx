import { useEffect, useState } from "react";
import Button from "react-bootstrap/Button";
import { useNavigate } from "react-router";
import { useStore } from "../../components/base/useStore";
import { SignedNote } from "../../components/marks/SignedNote";
import { type Opened, OpenScreen } from "../../components/screen/OpenScreen";
import { useRoute } from "../../components/screen/useRoute";
import { stepTo } from "../../state/domain/addresses";
import { placeOf } from "../../state/domain/fields";
import {
  inOrder,
  leftOutIn,
  minutesWords,
  plannedIn,
  ROUTE,
  savedWords,
  startAt,
  testsOn,
  turnsWords,
} from "../../state/screen/route";
import { factsOf } from "../../state/screen/story";
import type { RouteProps } from "./props";
import { RouteSide } from "./RouteSide";
import styles from "./route.module.css";
import { Way } from "./Way";

/** Choose and order the tests: why each is in, what is held, what it costs. */
export default function RoutePlace() {
  return <OpenScreen>{(opened) => <OpenRoute {...opened} />}</OpenScreen>;
}

function OpenRoute(opened: Opened) {
  const { screen, bench } = opened;
  const route = useRoute(bench, screen.record.id);
  const state = useStore(bench.state);
  const facts = factsOf(state, ROUTE);
  const recorded = [...state.fields.keys(), ...state.waiting.keys()];
  if (!route) return <p className="p-4 muted">Finding the way.</p>;
  const props = {
    ...opened,
    route,
    planned: plannedIn(facts),
    out: leftOutIn(facts),
    done: new Set(recorded.map((key) => placeOf(key).test)),
    reasonsAfter: facts.get(`${ROUTE}|||reasons_after`) === true,
  };
  return (
    <div className={styles.route}>
      <RouteHead {...props} />
      <Way {...props} />
      <RouteSide {...props} />
    </div>
  );
}

function RouteHead({ bench, screen, catalogue, route, planned }: RouteProps) {
  const navigate = useNavigate();
  const first = route.stops[0];
  const name = catalogue.tests.find((test) => test.code === first?.test)?.name ?? "";
  const { canUndo } = useStore(bench.state);
  const [going, setGoing] = useState(false);
  const start = screen.schools.start;
  const begin = () => {
    if (planned.length === 0) bench.write(inOrder(testsOn(route)));
    setGoing(true);
  };
  useEffect(() => {
    if (going && first) void navigate(stepTo(screen.record.id, "bench", first.test));
  }, [going, first, navigate, screen.record.id]);
  return (
    <header className={styles.head}>
      <h1>
        {minutesWords(route.seconds)}, {turnsWords(route.turns)}
      </h1>
      <p className="muted">{savedWords(route)}</p>
      <fieldset className={styles.start} aria-label="Where to start">
        {(["standing", "sitting"] as const).map((each) => (
          <button
            key={each}
            type="button"
            aria-pressed={start === each}
            onClick={() => bench.write(startAt(each))}
          >
            {each} first
          </button>
        ))}
      </fieldset>
      <Button variant="quiet" disabled={!canUndo} onClick={() => bench.undo()}>
        Undo
      </Button>
      <Button className={styles.begin} disabled={!first} onClick={begin}>
        {first ? `Begin: ${name.toLowerCase()}` : "Nothing to examine"}
      </Button>
      <SignedNote bench={bench} />
    </header>
  );
}
