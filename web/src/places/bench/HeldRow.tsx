import type { Catalogue, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Screen } from "../../api/screens";
import { useStore } from "../../components/base/useStore";
import { HeldLane } from "../../components/controls/HeldLane";
import { FIRST, laneOf, SECOND } from "../../state/device/lanes";
import type { Bench } from "../../state/screen/bench";

interface Props {
  bench: Bench;
  test: Test;
  catalogue: Catalogue;
  screen: Screen;
}

/** A gate fills its own lane only: why, what opens it, and the way through with a reason. */
export function HeldRow(props: Props) {
  const { reading } = useStore(props.bench.state);
  const shut = reading?.shut?.filter((item) => item.tests.includes(props.test.code)) ?? [];
  if (shut.length === 0) return null;
  const gates = (side: Side) => [
    ...new Set(shut.filter((item) => item.side === side || item.side === null).map((i) => i.gate)),
  ];
  const lane = (side: Side) => (
    <div className={laneOf(side)}>
      {gates(side).map((gate) => (
        <HeldLane key={gate} {...props} side={side} gate={gate} />
      ))}
    </div>
  );
  return (
    <div className="lanes">
      {lane(FIRST)}
      <div className="spine">
        <strong>Held</strong>
        <span className="muted small">kept, not read</span>
      </div>
      {lane(SECOND)}
    </div>
  );
}
