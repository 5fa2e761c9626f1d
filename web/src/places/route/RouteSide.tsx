import { useStore } from "../../components/base/useStore";
import { HeldLane } from "../../components/controls/HeldLane";
import { SideMark } from "../../components/marks/SideMark";
import { readable } from "../../state/domain/wording";
import { clockWords, leaveOut, putBack, takeIn } from "../../state/screen/route";
import { AddStop } from "./AddStop";
import { OwnRoutes } from "./OwnRoutes";
import type { RouteProps } from "./props";
import styles from "./route.module.css";

/** What is offered, what is held, what was left out, what more there is. */
export function RouteSide(props: RouteProps) {
  return (
    <aside className={styles.side} aria-label="Beside the way">
      <Offers {...props} />
      <Gates {...props} />
      <AddStop {...props} />
      <LeftOut {...props} />
      <OwnRoutes {...props} />
    </aside>
  );
}

const nameIn = ({ catalogue }: RouteProps, code: string): string =>
  catalogue.tests.find((test) => test.code === code)?.name ?? readable(code);

/** Asked for since the plan was made. Danger checks first; nothing goes in by itself. */
function Offers(props: RouteProps) {
  const { bench, route, planned } = props;
  const offers = [...route.offered].sort(
    (one, other) => Number(other.stage === "safety") - Number(one.stage === "safety"),
  );
  if (offers.length === 0) return null;
  return (
    <section aria-label="Offered">
      <h2 className="panel-title">Offered: the story asks for it</h2>
      <ul className={styles.offers}>
        {offers.map((offer) => {
          const name = nameIn(props, offer.test);
          return (
            <li key={offer.test} data-safety={offer.stage === "safety" || undefined}>
              <div>
                <strong>{name}</strong>{" "}
                {offer.asked_for.length === 1 && offer.asked_for[0] ? (
                  <SideMark side={offer.asked_for[0]} />
                ) : null}
              </div>
              <div className="muted">
                {offer.why} {readable(offer.position)}, {clockWords(offer.seconds)}.
              </div>
              <div className={styles.choice}>
                <button
                  type="button"
                  className="plate"
                  aria-label={`Take it in: ${name}`}
                  onClick={() => bench.write(takeIn(route, planned, offer.test))}
                >
                  Take it in
                </button>
                <button
                  type="button"
                  className="plate"
                  aria-label={`Not now: ${name}`}
                  onClick={() => bench.write(leaveOut(planned, offer.test, "Not now."))}
                >
                  Not now
                </button>
              </div>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** Every gate that stands shut over something on the way, with what opens it. */
function Gates(props: RouteProps) {
  const { bench, catalogue, screen, route, planned } = props;
  const { reading } = useStore(bench.state);
  const wanted = new Set([...route.stops.map((stop) => stop.test), ...planned]);
  const shut = (reading?.shut ?? []).filter((item) => item.tests.some((code) => wanted.has(code)));
  if (shut.length === 0) return null;
  return (
    <section aria-label="At the gate">
      <h2 className="panel-title">At the gate</h2>
      {shut.map((item) => {
        const held = item.tests.filter((code) => wanted.has(code));
        return item.side ? (
          <div key={`${item.gate} ${item.side}`} className={`lane-${item.side}`}>
            <HeldLane
              bench={bench}
              test={{ code: "route" }}
              catalogue={catalogue}
              screen={screen}
              side={item.side}
              gate={item.gate}
            />
            <p className={styles.holds}>
              With it wait: {held.map((code) => nameIn(props, code)).join(", ")}.
            </p>
          </div>
        ) : null;
      })}
    </section>
  );
}

/** What somebody left out, and what waits because something urgent stands. */
function LeftOut(props: RouteProps) {
  const { bench, route, planned, out } = props;
  const lines = route.left_out.filter(({ test, gate }) => {
    return out.has(test) || (planned.includes(test) && gate === null);
  });
  if (lines.length === 0) return null;
  return (
    <section aria-label="Left out">
      <h2 className="panel-title">Left out</h2>
      <ul className={styles.left}>
        {lines.map(({ test, why }) => {
          const name = nameIn(props, test);
          return (
            <li key={test}>
              <span>
                <s>{name}</s> <span className="muted">{why}</span>
              </span>
              {out.has(test) ? (
                <button
                  type="button"
                  className="plate"
                  aria-label={`Put back: ${name}`}
                  onClick={() => bench.write(putBack(route, planned, test))}
                >
                  Put back
                </button>
              ) : null}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
