import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useEffect, useState } from "react";
import { useParams } from "react-router";
import { type Catalogue, catalogueQuery } from "../../api/catalogue";
import { type Screen, screenQuery } from "../../api/screens";
import { placeOfAnswer } from "../../state/domain/fields";
import type { Bench } from "../../state/screen/bench";
import { factsOf } from "../../state/screen/story";
import { dangerUnread } from "../../state/screen/unread_danger";
import { useServices } from "../base/session";
import { useStore } from "../base/useStore";
import { TwoValues } from "../controls/TwoValues";
import { PlaceAway } from "../layout/Away";
import { PlaceProblem } from "../layout/PlaceProblem";
import { ScreenHeader } from "../layout/ScreenHeader";
import { Shell } from "../layout/Shell";
import { UnreadDanger, UrgentBars } from "../layout/UrgentBars";
import { Others } from "../marks/Others";
import { SaveMark, useUnsaved } from "../marks/SaveMark";
import { useBench } from "./useBench";
import { useSayWhere } from "./useSayWhere";

export interface Opened {
  screen: Screen;
  catalogue: Catalogue;
  bench: Bench;
}

/** The screen of the address, opened to be written to: its header, what is urgent, whether all is saved. */
export function OpenScreen({ children }: { children: (opened: Opened) => ReactNode }) {
  const { screen: id = "" } = useParams();
  const { outbox } = useServices();
  const screen = useQuery({ ...screenQuery(id), staleTime: Number.POSITIVE_INFINITY });
  const catalogue = useQuery(catalogueQuery);
  const bench = useBench(id, screen.data, catalogue.data);
  useSayWhere(id);
  const error = screen.error ?? catalogue.error;
  if (error) {
    return <PlaceProblem error={error} />;
  }
  if (!screen.data || !catalogue.data || !bench) {
    const waits = outbox.count(id);
    return (
      <PlaceAway
        screen={id}
        waiting={screen.failureCount > 0 || catalogue.failureCount > 0 || waits > 0}
      />
    );
  }
  const opened = { screen: screen.data, catalogue: catalogue.data, bench };
  return (
    <Shell
      who={<ScreenHeader screen={screen.data} />}
      screen={id}
      saved={
        <>
          <Others screen={id} catalogue={catalogue.data} />
          <Saved bench={bench} screen={id} />
        </>
      }
      urgent={<Urgent {...opened} />}
    >
      {children(opened)}
    </Shell>
  );
}

function Saved({ bench, screen }: { bench: Bench; screen: string }) {
  const { faults } = useStore(bench.state);
  return <SaveMark unsaved={useUnsaved(screen, [...faults.keys()])} />;
}

// A reading takes a tenth of a second: what takes this long has no server.
const READ_WITHIN_MS = 700;

/** True once something has been so for a while. */
function useLasting(so: boolean, afterMs: number): boolean {
  const [lasting, setLasting] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLasting(so), so ? afterMs : 0);
    return () => clearTimeout(timer);
  }, [so, afterMs]);
  return lasting && so;
}

/** From what it reads as with everything told and typed, not from what was kept last. */
function Urgent({ screen, catalogue, bench }: Opened) {
  const queries = useQueryClient();
  const state = useStore(bench.state);
  const { reading, readingCurrent } = state;
  const danger = catalogue.story.topic.flatMap((topic) =>
    topic.about === "danger" ? topic.asks : [],
  );
  const unread = dangerUnread(factsOf(state), danger, readingCurrent);
  const away = useLasting(!readingCurrent, READ_WITHIN_MS);
  const refresh = () =>
    void queries.invalidateQueries({ queryKey: screenQuery(screen.record.id).queryKey });
  return (
    <>
      {reading ? (
        <UrgentBars reading={reading} screen={screen} catalogue={catalogue} onChanged={refresh} />
      ) : null}
      <TwoValues
        clashes={state.clashes}
        catalogue={catalogue}
        onChoose={(answer) => bench.write([{ ...placeOfAnswer(answer), value: answer.value }])}
      />
      {away && unread.length > 0 ? <UnreadDanger items={unread} catalogue={catalogue} /> : null}
    </>
  );
}
