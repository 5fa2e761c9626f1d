import { useQuery } from "@tanstack/react-query";
import { useNavigate, useParams } from "react-router";
import { catalogueQuery } from "../../api/catalogue";
import { screenQuery } from "../../api/screens";
import { Away } from "../../components/Away";
import { ProblemNote } from "../../components/ProblemNote";
import { Shell } from "../../components/Shell";
import { useServices } from "../../components/session";
import { useStore } from "../../components/useStore";
import { BenchHeader, ReadingLink, SaveMark } from "./BenchHeader";
import { Rail } from "./Rail";
import { stopsOf } from "./stops";
import { TestBench } from "./TestBench";
import { useBench } from "./useBench";

/** Examine: the route down the side, the current test in two lanes. */
export function BenchPlace() {
  const { screen: id = "", test: chosen } = useParams();
  const navigate = useNavigate();
  const { sender, outbox } = useServices();
  useStore(sender.state);
  const screen = useQuery({ ...screenQuery(id), staleTime: Number.POSITIVE_INFINITY });
  const catalogue = useQuery(catalogueQuery);
  const bench = useBench(id, screen.data, catalogue.data);
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
  const stops = stopsOf(catalogue.data, screen.data, bench.state.get().fields, chosen ?? null);
  const stop = stops.find((candidate) => candidate.test.code === chosen) ?? stops[0];
  const place = stop ? stops.indexOf(stop) : -1;
  const go = (to: number) => {
    const next = stops[to];
    if (next) void navigate(`/screens/${id}/bench/${next.test.code}`, { replace: true });
    else if (to >= stops.length) void navigate(`/screens/${id}/reading`);
  };
  return (
    <Shell
      who={<BenchHeader screen={screen.data} />}
      places={
        <>
          <SaveMark bench={bench} />
          <ReadingLink screen={id} />
        </>
      }
    >
      <div className="bench">
        <Rail bench={bench} stops={stops} current={stop?.test.code ?? null} screen={id} />
        {stop ? (
          <TestBench
            key={stop.test.code}
            bench={bench}
            test={stop.test}
            screen={screen.data}
            catalogue={catalogue.data}
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
