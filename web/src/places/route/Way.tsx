import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  MouseSensor,
  TouchSensor,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import {
  SortableContext,
  sortableKeyboardCoordinates,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { useState } from "react";
import { PositionMark } from "../../components/marks/PositionMark";
import { SideMark } from "../../components/marks/SideMark";
import { FIRST, laneOf, SECOND } from "../../state/device/lanes";
import { capital, readable } from "../../state/domain/wording";
import { clockWords, inOrder, type Leg, legsOf, moved, testsOn } from "../../state/screen/route";
import type { RouteProps } from "./props";
import styles from "./route.module.css";
import { StopRow } from "./StopRow";

// A finger that scrolls is no finger that carries.
const HOLD = { delay: 250, tolerance: 6 };

/** The spine is the way through; the lanes say why for their side. A loop is a turn. */
export function Way(props: RouteProps) {
  const { bench, route, catalogue } = props;
  const [inHand, setInHand] = useState<string | null>(null);
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: HOLD }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const dropped = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    bench.write(inOrder(moved(route, String(active.id), String(over.id))));
  };
  const nameOf = (code: string) =>
    catalogue.tests.find((test) => test.code === code)?.name ?? readable(code);
  const legs = legsOf(route.stops);
  return (
    <section className={styles.way} aria-label="The way through">
      <div className={styles["way-head"]}>
        <span />
        <span className={laneOf(FIRST)}>
          <SideMark side={FIRST} /> why, {FIRST}
        </span>
        <span>the way through</span>
        <span className={laneOf(SECOND)}>
          why, {SECOND} <SideMark side={SECOND} />
        </span>
      </div>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={dropped}
        accessibility={{ screenReaderInstructions: { draggable: CARRYING } }}
      >
        <SortableContext items={testsOn(route)} strategy={verticalListSortingStrategy}>
          {legs.map((leg, index) => (
            <section
              key={leg.stops[0]?.number}
              className={styles.leg}
              aria-label={legName(leg, legs.slice(0, index))}
            >
              <div className={styles.position}>
                <PositionMark position={leg.position} />
                <strong>{legName(leg, legs.slice(0, index))}</strong>
                <span className="muted">{clockWords(leg.seconds)}</span>
              </div>
              <ol>
                {leg.stops.map((placed) => (
                  <StopRow
                    key={`${placed.stop.test} ${placed.stop.sides.join()}`}
                    {...props}
                    placed={placed}
                    nameOf={nameOf}
                    inHand={inHand === placed.stop.test}
                    onHand={setInHand}
                  />
                ))}
              </ol>
            </section>
          ))}
        </SortableContext>
      </DndContext>
      {legs.length === 0 ? (
        <p className="p-4 muted">
          The story asks for no test yet. Tell where it hurts, or add a stop by name.
        </p>
      ) : null}
    </section>
  );
}

const CARRYING =
  "Space picks a stop up, the arrows carry it, Space puts it down, Escape leaves it where it was.";

function legName(leg: Leg, before: readonly Leg[]): string {
  const name = capital(leg.position.replace("_", "-"));
  if (leg.side) return `${name} for the ${leg.side}`;
  return before.some((other) => other.position === leg.position) ? `${name} again` : name;
}
