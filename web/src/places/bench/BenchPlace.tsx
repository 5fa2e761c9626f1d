import { useQuery } from "@tanstack/react-query";
import { useLayoutEffect, useRef } from "react";
import { useNavigate, useParams } from "react-router";
import { catalogueQuery } from "../../api/catalogue";
import { screenQuery } from "../../api/screens";
import { Away } from "../../components/Away";
import { ProblemNote } from "../../components/ProblemNote";
import { SaveMark, useUnsaved } from "../../components/SaveMark";
import { ScreenHeader } from "../../components/ScreenHeader";
import { Shell } from "../../components/Shell";
import { useServices } from "../../components/session";
import { useStore } from "../../components/useStore";
import { stepTo } from "../../state/addresses";
import type { Bench } from "../../state/bench";
import layout from "./layout.module.css";
import { Rail } from "./Rail";
import { stopsOf } from "./stops";
import { TestBench } from "./TestBench";
import { useBench } from "./useBench";

/** Examine: the route down the side, the current test in two lanes. */
export default function BenchPlace() {
  const { screen: id = "", test: chosen } = useParams();
  const navigate = useNavigate();
  const { outbox } = useServices();
  const screen = useQuery({ ...screenQuery(id), staleTime: Number.POSITIVE_INFINITY });
  const catalogue = useQuery(catalogueQuery);
  const bench = useBench(id, screen.data, catalogue.data);
  // Another stop begins at its top.
  const whole = useRef<HTMLDivElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: whenever another test is opened
  useLayoutEffect(() => {
    whole.current?.scrollTo(0, 0);
  }, [chosen]);
  const error = screen.error ?? catalogue.error;
  if (error) {
    return (
      <Shell>
        <div className="p-4">
          <ProblemNote error={error} />
        </div>
      </Shell>
    );
  }
  if (!screen.data || !catalogue.data || !bench) {
    const waits = outbox.list(id).length;
    return <Away waiting={screen.failureCount > 0 || catalogue.failureCount > 0 || waits > 0} />;
  }
  const { fields } = bench.state.getState();
  const stops = stopsOf(catalogue.data, screen.data, fields, chosen ?? null);
  const stop = stops.find((candidate) => candidate.test.code === chosen) ?? stops[0];
  const place = stop ? stops.indexOf(stop) : -1;
  const go = (to: number) => {
    const next = stops[to];
    if (next) void navigate(stepTo(id, "bench", next.test.code), { replace: true });
    else if (to >= stops.length) void navigate(stepTo(id, "reading"));
  };
  return (
    <Shell
      who={<ScreenHeader screen={screen.data} />}
      screen={id}
      saved={<BenchSaved bench={bench} screen={id} />}
    >
      <div className={layout.bench} ref={whole}>
        <Rail bench={bench} stops={stops} current={stop?.test.code ?? null} screen={screen.data} />
        {stop ? (
          <TestBench
            key={stop.test.code}
            bench={bench}
            test={stop.test}
            screen={screen.data}
            catalogue={catalogue.data}
            tests={stops.map((each) => each.test)}
            next={stops[place + 1]?.test ?? null}
            onStop={(step) => go(place + step)}
          />
        ) : (
          <p className="p-4">No test is planned for this screen.</p>
        )}
      </div>
    </Shell>
  );
}

function BenchSaved({ bench, screen }: { bench: Bench; screen: string }) {
  const { faults } = useStore(bench.state);
  return <SaveMark unsaved={useUnsaved(screen, [...faults.keys()])} />;
}
