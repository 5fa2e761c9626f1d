import type { Catalogue } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Reading, Screen } from "../../api/screens";
import { classes } from "../../components/base/classes";
import Arrange from "../../components/controls/Arrange";
import { Arranged } from "../../components/marks/Arranged";
import { SideMark } from "../../components/marks/SideMark";
import { LANES, laneOf } from "../../state/device/lanes";
import { type Action, isInHand, standingOf } from "../../state/domain/arranging";
import { isUrgent } from "../../state/domain/urgent";
import { actionWords, dueWords, urgencyName } from "../../state/domain/wording";
import { Options } from "./Options";
import styles from "./reading.module.css";

interface Props {
  reading: Reading;
  screen: Screen;
  catalogue: Catalogue;
  /** A signed version by itself: nothing is done about it here. */
  frozen: boolean;
  onChanged: () => void;
}

/** Which lane is whose, and what is to be done besides what cannot wait: each in its side's lane. */
export function LedgerHead(props: Props) {
  const { reading, screen } = props;
  return (
    <section className={classes("lanes", styles.head)} aria-label="What is to be done">
      {LANES.map((side) => (
        <div key={side} className={classes(laneOf(side), styles["head-lane"])}>
          <span className={styles["head-side"]}>
            <SideMark side={side} /> <span className="muted">{roleOf(screen, side)}</span>
          </span>
          <Actions {...props} side={side} />
        </div>
      ))}
      <div className="spine">
        <Actions {...props} side={null} />
        <span className="muted">
          {reading.actions.length === 0 ? "nothing flagged asks for an action" : "also to do"}
        </span>
      </div>
    </section>
  );
}

function Actions(props: Props & { side: Side | null }) {
  const { reading, screen, side } = props;
  const here = reading.actions.filter((action) => action.side === side);
  // What cannot wait stands in its bar until somebody has it in hand.
  const shown = here.filter(
    (action) => props.frozen || !isUrgent(action) || isInHand(standingOf(screen, action)),
  );
  if (shown.length === 0) {
    const above = here.length > 0 ? "in red above" : "nothing to arrange";
    return side ? <span className="muted">{above}</span> : null;
  }
  return (
    <ul className={styles.actions}>
      {shown.map((action) => (
        <ActionLine key={action.code} {...props} action={action} />
      ))}
    </ul>
  );
}

function ActionLine({
  reading,
  screen,
  catalogue,
  frozen,
  onChanged,
  action,
}: Props & { action: Action }) {
  const standing = standingOf(screen, action);
  const name = action.says ?? actionWords(action, catalogue);
  const options = reading.advice.filter(
    (item) => item.side === action.side && isAbout(action, item.code),
  );
  return (
    <li>
      <span className={styles["action-words"]}>
        <strong>{urgencyName(action.urgency)}</strong> {name}{" "}
        <span className={styles.days}>{dueWords(action)}</span>
        {frozen ? null : (
          <Arranged screen={screen.record.id} standing={standing} onChanged={onChanged} />
        )}
      </span>
      <Options options={options.flatMap((item) => item.options)} about={name} />
      {frozen || isInHand(standing) ? null : (
        <Arrange screen={screen.record.id} action={action} name={name} onChanged={onChanged} />
      )}
    </li>
  );
}

const isAbout = (action: Action, flag: string): boolean =>
  action.code === `${action.urgency}.${flag.replaceAll(".", "_")}`;

function roleOf(screen: Screen, side: Side): string {
  const { complaint } = screen;
  if (!complaint?.side || complaint.region === "none") return side;
  return complaint.side === side || complaint.side === "both" ? "hurts here" : "other side";
}
