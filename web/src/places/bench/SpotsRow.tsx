import type { Step, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import { classes } from "../../components/base/classes";
import { useStore } from "../../components/base/useStore";
import { MapView } from "../../maps/MapView";
import { PointMark } from "../../maps/PointMark";
import { codesOn } from "../../maps/places";
import { edgeOf, FIRST, LANES, laneOf, SECOND } from "../../state/device/lanes";
import { valueField } from "../../state/domain/fields";
import { isAsked, type Key, type Question } from "../../state/domain/questions";
import type { Bench } from "../../state/screen/bench";
import { questionId } from "./focus";
import { MarkLegend } from "./MarkLegend";
import styles from "./map-row.module.css";
import {
  afterSpot,
  expectedAt,
  legendOf,
  type SpotOnMap,
  spotMark,
  spotsOf,
  spotWords,
} from "./spots";
import { useRestOfMap } from "./useRestOfMap";

interface Props {
  bench: Bench;
  test: Test;
  step: Step;
  keys: readonly Key[];
  now: Question;
  onNow: (question: Question) => void;
  onAccept: () => void;
}

/** Fields, pulses and taps at their places: a tap goes from the expected answer on; the list stands between. */
export default function SpotsRow(props: Props) {
  const { test, step, keys, now, onNow, onAccept } = props;
  const spots = spotsOf(test, step, keys);
  const onMap = useSpots(props);
  const asked = now.side ?? "left";
  const views = step.map?.views ?? [];
  const list = step.map?.points ?? "";
  const question = (spot: SpotOnMap, side: Side): Question => ({
    step: step.code,
    measure: spot.measure.code,
    side,
    key: spot.key,
  });
  const spotAt = (code: string) => spots.find((spot) => spot.code === code);
  useRestOfMap(() => onMap.rest(spots, asked));
  const tap = (spot: SpotOnMap, side: Side) => {
    onNow(question(spot, side));
    onMap.write(spot, side, afterSpot(spot.measure, onMap.value(spot, side)));
  };
  const lane = (side: Side) => (
    // biome-ignore lint/a11y/noStaticElementInteractions: a larger target for the same buttons
    // biome-ignore lint/a11y/useKeyWithClickEvents: the buttons inside take the keys
    <div
      className={classes(laneOf(side), styles.lane, asked === side && styles.asked)}
      onClick={() => asked !== side && onNow({ ...now, side })}
    >
      {views.map((view) => (
        <div key={view} className={styles.half}>
          <MapView
            view={view}
            side={side}
            list={list}
            bones={false}
            points={spots
              .filter((spot) => codesOn(list, view).includes(spot.code))
              .map((spot) => ({
                code: spot.code,
                label: spot.label,
                id: questionId(question(spot, side)),
                mark: spotMark(spot.measure, onMap.value(spot, side)),
                says: spotWords(spot.measure, onMap.value(spot, side)),
              }))}
            onPoint={(code) => act(spotAt(code), (spot) => tap(spot, side))}
            onEnter={onAccept}
          />
        </div>
      ))}
    </div>
  );
  const [first] = spots;
  return (
    <section className={styles.maps} aria-label={step.map?.ask}>
      <div className={classes("lanes", styles["map-lanes"], styles[`leans-${edgeOf(asked)}`])}>
        {lane(FIRST)}
        <div className={classes("spine", styles.spots)}>
          <ul className="list-unstyled m-0">
            {spots.map((spot) => (
              <li key={`${spot.key} ${spot.measure.code}`}>
                <ListMark {...{ spot, onMap, tap }} side={FIRST} on={now} q={question} />
                <span>{spot.label}</span>
                <ListMark {...{ spot, onMap, tap }} side={SECOND} on={now} q={question} />
              </li>
            ))}
          </ul>
        </div>
        {lane(SECOND)}
      </div>
      {first ? <MarkLegend marks={legendOf(first.measure)} /> : null}
      <div className={classes("lanes", styles.rest)}>
        {LANES.map((side) => (
          <div key={side} className={classes(laneOf(side), styles["rest-lane"])}>
            <button
              type="button"
              className={classes("plate", side)}
              aria-label={`${onMap.restWords(spots)}, ${side}`}
              onClick={() => onMap.rest(spots, side)}
            >
              {onMap.restWords(spots)}
            </button>
          </div>
        ))}
      </div>
    </section>
  );
}

function act<T>(found: T | undefined, with_: (found: T) => void): void {
  if (found !== undefined) with_(found);
}

interface ListMarkProps {
  spot: SpotOnMap;
  side: Side;
  onMap: ReturnType<typeof useSpots>;
  tap: (spot: SpotOnMap, side: Side) => void;
  on: Question;
  q: (spot: SpotOnMap, side: Side) => Question;
}

/** The same answer in the list: its left half answers left. */
function ListMark({ spot, side, onMap, tap, on, q }: ListMarkProps) {
  const value = onMap.value(spot, side);
  return (
    <button
      type="button"
      className={classes(side, isAsked(on, q(spot, side)) && styles.now)}
      aria-label={`List: ${spot.label}, ${side}: ${spotWords(spot.measure, value)}`}
      onClick={() => tap(spot, side)}
    >
      <PointMark mark={spotMark(spot.measure, value)} />
    </button>
  );
}

function useSpots({ bench, test }: Props) {
  useStore(bench.state);
  const placeOf = (spot: SpotOnMap, side: Side) => ({
    test: test.code,
    side,
    key: spot.key,
    field: valueField(spot.measure.code),
  });
  return {
    value: (spot: SpotOnMap, side: Side) => bench.value(placeOf(spot, side)),
    write: (spot: SpotOnMap, side: Side, value: unknown) =>
      bench.write([{ ...placeOf(spot, side), value }]),
    /** Every place nobody touched is as expected. */
    rest: (spots: readonly SpotOnMap[], side: Side) =>
      bench.write(
        spots
          .filter((spot) => bench.value(placeOf(spot, side)) === null)
          .map((spot) => ({ ...placeOf(spot, side), value: expectedAt(spot.measure) })),
      ),
    restWords: (spots: readonly SpotOnMap[]) => {
      const [spot] = spots;
      return spot ? `Rest ${spotWords(spot.measure, expectedAt(spot.measure))}` : "";
    },
  };
}
