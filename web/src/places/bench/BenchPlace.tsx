import { useLayoutEffect, useRef } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import { useStore } from "../../components/base/useStore";
import { type Opened, OpenScreen } from "../../components/screen/OpenScreen";
import { useRoute } from "../../components/screen/useRoute";
import { stepTo } from "../../state/domain/addresses";
import { plannedIn, ROUTE } from "../../state/screen/route";
import { factsOf } from "../../state/screen/story";
import layout from "./layout.module.css";
import { Rail } from "./Rail";
import { benchAt, stopAt, stopsOf } from "./stops";
import { TestBench } from "./TestBench";

/** Examine: the route down the side, the current test in two lanes. */
export default function BenchPlace() {
  return <OpenScreen>{(opened) => <OpenBench {...opened} />}</OpenScreen>;
}

function OpenBench({ screen, catalogue, bench }: Opened) {
  const { test: chosen } = useParams();
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const id = screen.record.id;
  const route = useRoute(bench, id);
  const fields = useStore(bench.state, (state) => state.fields);
  const waiting = useStore(bench.state, (state) => state.waiting);
  const whole = useRef<HTMLDivElement>(null);
  const lying = search.get("side");
  const opened = `${chosen} ${lying}`;
  const before = useRef(opened);
  // Another stop begins at its top; the first one is there, and need not be laid out to be scrolled.
  useLayoutEffect(() => {
    if (before.current !== opened) whole.current?.scrollTo(0, 0);
    before.current = opened;
  }, [opened]);
  const planned = plannedIn(factsOf({ fields, waiting }, ROUTE));
  const stops = stopsOf(catalogue, {
    route,
    planned,
    fields,
    opened: chosen ?? null,
  });
  const place = stopAt(stops, chosen ?? null, lying);
  const stop = stops[place];
  const go = (to: number) => {
    const next = stops[to];
    if (next) void navigate(benchAt(id, next), { replace: true });
    else if (to >= stops.length) void navigate(stepTo(id, "reading"));
  };
  return (
    <div className={layout.bench} ref={whole}>
      <Rail bench={bench} stops={stops} current={stop ?? null} screen={screen} />
      {stop ? (
        <TestBench
          key={`${stop.test.code} ${stop.side}`}
          bench={bench}
          test={stop.test}
          lying={stop.side}
          screen={screen}
          catalogue={catalogue}
          tests={[...new Set(stops.map((each) => each.test))]}
          next={stops[place + 1]?.test ?? null}
          onStop={(step) => go(place + step)}
        />
      ) : (
        <div className="p-4">
          <p>No test is planned for this screen yet.</p>
          <Link to={stepTo(id, "route")}>See the route the story asks for</Link>
        </div>
      )}
    </div>
  );
}
