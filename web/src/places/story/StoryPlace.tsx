import { useState } from "react";
import { useNavigate, useParams } from "react-router";
import type { Side } from "../../api/client";
import { useStore } from "../../components/base/useStore";
import { type Opened, OpenScreen } from "../../components/screen/OpenScreen";
import { useBenchKeys } from "../../components/screen/useBenchKeys";
import { FIRST, SECOND } from "../../state/device/lanes";
import { stepTo } from "../../state/domain/addresses";
import { factAt, factsOf, nothingHurts, sorePlaces, told, toldOf } from "../../state/screen/story";
import { Before } from "./Before";
import { Changed } from "./Changed";
import { Danger } from "./Danger";
import { LaneColumn } from "./LaneColumn";
import { PARTS, type PartName } from "./parts";
import { SquadQuestions } from "./SquadQuestions";
import { StoryFooter } from "./StoryFooter";
import { StoryHead } from "./StoryHead";
import styles from "./story.module.css";
import { Thinkable } from "./Thinkable";
import { WhenAndHow } from "./WhenAndHow";
import { Where } from "./Where";

/** Ask first: where, when and how, danger, what was before. */
export default function StoryPlace() {
  return <OpenScreen>{(opened) => <OpenStory {...opened} />}</OpenScreen>;
}

function OpenStory({ screen, catalogue, bench }: Opened) {
  const { part: chosen } = useParams();
  const navigate = useNavigate();
  const id = screen.record.id;
  const state = useStore(bench.state);
  const facts = factsOf(state);
  const known = toldOf(facts, catalogue);
  const [at, setAt] = useState<{ site: string; side: Side } | null>(null);
  const [close, setClose] = useState<{ view: string; side: Side } | null>(null);
  const purpose = String(factAt(facts, "purpose") ?? screen.record.purpose);
  const part: PartName | "squad" =
    PARTS.find((each) => each.part === chosen)?.part ??
    (purpose === "squad_screen" ? "squad" : "where");
  const index = PARTS.findIndex((each) => each.part === part);
  // A squad whose two questions are answered goes on; before that everything can be asked.
  const answered = nothingHurts(facts) && factAt(facts, "history.none") === true;
  const next = part === "squad" && answered ? undefined : PARTS[index + 1];
  const previous = PARTS[index - 1];
  const go = (to: (typeof PARTS)[number] | undefined) =>
    void navigate(to ? stepTo(id, "story", to.part) : stepTo(id, "route"), { replace: true });

  useBenchKeys((key) => {
    if (key === "undo") bench.undo();
    else if (key === "next-step") go(next);
    else if (key === "previous-step") previous && go(previous);
    else return false;
    return true;
  });

  const place = (site: string, side: Side) => {
    // The picture has done its work: how much it hurts is asked next.
    setAt({ site, side });
    setClose(null);
    if (sorePlaces(facts).some((each) => each.site === site && each.side === side)) return;
    bench.write([
      { ...told("here", side, site), value: true },
      // A site of a file that had no side has one now.
      ...(facts.has(`story||${site}|here`) ? [{ ...told("here", null, site), value: null }] : []),
      ...(nothingHurts(facts) ? [{ ...told("complaint.region"), value: null }] : []),
    ]);
  };
  const props = { bench, catalogue, screen, facts, told: known, reading: state.reading };
  const lane = (side: Side) => (
    <LaneColumn
      {...props}
      side={side}
      at={part === "where" && at?.side === side ? at.site : null}
      close={part === "where" && close?.side === side ? close.view : null}
      onAt={(site) => setAt(site === null ? null : { site, side })}
      onClose={(view) => setClose(view === null ? null : { view, side })}
      onPlace={(site) => place(site, side)}
    />
  );
  return (
    <div className={styles.story} data-part={part}>
      <StoryHead {...props} part={part} purpose={purpose} />
      {lane(FIRST)}
      <div className={styles.middle} key={part}>
        {part === "squad" ? <SquadQuestions {...props} /> : null}
        {part === "where" ? (
          <Where
            {...props}
            onPlace={place}
            onCloser={(view, side) => {
              setAt(null);
              setClose({ view, side });
            }}
          />
        ) : null}
        {part === "when" ? <WhenAndHow {...props} /> : null}
        {part === "danger" ? <Danger {...props} /> : null}
        {part === "before" ? <Before {...props} /> : null}
        <Thinkable reading={state.reading} catalogue={catalogue} side={null} />
      </div>
      {lane(SECOND)}
      <Changed bench={bench} catalogue={catalogue} />
      <StoryFooter
        bench={bench}
        next={next ? `Next: ${next.tab.toLowerCase()}` : "To the route"}
        quiet={part === "squad" && !answered}
        onNext={() => go(next)}
        onBack={previous ? () => go(previous) : null}
      />
    </div>
  );
}
