import type { Catalogue } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Flag, Reading, Screen } from "../../api/screens";
import { classes } from "../../components/classes";
import { NotExamined } from "../../components/NotExamined";
import { SideMark } from "../../components/SideMark";
import { RuledDown, Tally } from "../../components/Tally";
import { fieldsOf, isValueField, keyMeasures, placeOf } from "../../state/fields";
import { flagName, readable, retakeReason } from "../../state/wording";
import styles from "./reading.module.css";

interface Props {
  reading: Reading;
  screen: Screen;
  catalogue: Catalogue;
}

/** Every flag in its lane, named in the spine. An empty lane says why it is empty. */
export function FlagLanes({ reading, screen, catalogue }: Props) {
  const sided = [...reading.flags, ...reading.ruled_down].filter((item) => item.side !== null);
  const codes = [...new Set(sided.map((flag) => flag.code))];
  const covered = reading.coverage;
  return (
    <>
      <div className={classes("lanes", styles["reading-head"])}>
        <div className="lane-left">
          <SideMark side="left" /> left{roleOf(screen, "left")}
        </div>
        <div className="spine">
          {covered.planned === 0
            ? "nothing planned"
            : `${covered.done} of ${covered.planned} planned done`}
          <span className="muted small">rules {reading.rules}</span>
        </div>
        <div className="lane-right">
          {roleOf(screen, "right")}right <SideMark side="right" />
        </div>
      </div>
      {reading.flags.length + reading.ruled_down.length === 0 ? (
        <NothingFlagged {...{ reading, screen, catalogue }} />
      ) : null}
      {reading.flags
        .filter((flag) => flag.side === null)
        .map((flag) => (
          <div key={flag.code} className={styles["whole-row"]}>
            <strong>{flagName(catalogue, flag.code)}</strong>{" "}
            <span className="muted small">{rulesOf(reading, flag.code)}, of no one side</span>
            <div>
              <FlagWords flag={flag} />
            </div>
          </div>
        ))}
      {codes.map((code) => (
        <div key={code} className="lanes flag-row">
          <FlagCell code={code} side="left" {...{ reading, screen, catalogue }} />
          <div className="spine">
            <strong>{flagName(catalogue, code)}</strong>
            <span className="muted small">{rulesOf(reading, code)}</span>
          </div>
          <FlagCell code={code} side="right" {...{ reading, screen, catalogue }} />
        </div>
      ))}
      <NotExaminedRow reading={reading} />
    </>
  );
}

/** Silence is not health: what nothing speaks about stands in its lane by name. */
function NotExaminedRow({ reading }: { reading: Reading }) {
  const missing = reading.coverage.unexamined;
  if (missing && missing.length === 0) return null;
  const cell = (side: Side) => (
    <div className={classes(`lane-${side}`, styles["flag-cell"])}>
      {missing ? <NotExamined reading={reading} side={side} /> : null}
      {missing?.some((item) => item.side === side) ? null : (
        <span className="muted">{missing ? "nothing else called for" : ""}</span>
      )}
    </div>
  );
  return (
    <section className="lanes flag-row" aria-label="Not examined">
      {cell("left")}
      <div className="spine">
        <strong>Not examined</strong>
        {missing ? <NotExamined reading={reading} side={null} /> : <span>not kept back then</span>}
      </div>
      {cell("right")}
    </section>
  );
}

function roleOf(screen: Screen, side: Side): string {
  const complaint = screen.record.intake?.complaint;
  if (!complaint?.side || complaint.region === "none") return "";
  const role = complaint.side === side || complaint.side === "both" ? "involved" : "uninvolved";
  return side === "left" ? ` · ${role}` : `${role} · `;
}

function rulesOf(reading: Reading, code: string): string {
  const rules = [...reading.flags, ...reading.ruled_down]
    .filter((flag) => flag.code === code)
    .flatMap((flag) => flag.because.map((reason) => reason.rule));
  const own = [...new Set(rules)];
  return `${own.length === 1 ? "rule" : "rules"} ${own.join(", ")}`;
}

function FlagCell(props: Props & { code: string; side: Side }) {
  const { code, side, reading } = props;
  const here = (item: { code: string; side: Side | null }) =>
    item.code === code && item.side === side;
  const flag = reading.flags.find(here);
  const ruledDown = reading.ruled_down.find(here);
  return (
    <div className={classes(`lane-${side}`, styles["flag-cell"])}>
      {flag ? <FlagWords flag={flag} /> : null}
      {ruledDown ? (
        <>
          <RuledDown />
          <div>{ruledDown.because.map((reason) => reason.says).join(" ")}</div>
        </>
      ) : null}
      {flag || ruledDown ? null : <span className="muted">{silence(props, side)}</span>}
    </div>
  );
}

function FlagWords({ flag }: { flag: Flag }) {
  return (
    <>
      <Tally strength={flag.strength} />
      {flag.because.map((reason) => (
        <div key={reason.rule + reason.says}>{reason.says}</div>
      ))}
      {flag.against.map((says) => (
        <div key={says} className={styles.against}>
          Against: {says}
        </div>
      ))}
      {flag.uncompared ? (
        <div className={styles.against}>Not compared with the other side.</div>
      ) : null}
      {flag.sources.length > 0 ? (
        <div className="muted small">Source: {flag.sources.join("; ")}</div>
      ) : null}
    </>
  );
}

/** Not tested, declined, to be taken again, held, or without a flag: never just empty. */
function silence({ reading, screen, catalogue }: Props, side: Side): string {
  const again = reading.retake.find((retake) => retake.side === side);
  if (again) return `Do again. ${retakeReason(catalogue, again.reason)}`;
  const held = reading.held.find((item) => item.side === side);
  if (held) return `held: ${readable(held.gate)}`;
  let declined: string | null = null;
  for (const [key, standing] of fieldsOf(screen.record, keyMeasures(catalogue))) {
    const place = placeOf(key);
    if (place.side !== side && place.side !== null) continue;
    if (isValueField(place.field)) return "no flag from what was measured";
    if (place.field === "declined") declined = String(standing.value);
  }
  return declined ? `not done: ${declined}` : "not tested";
}

function NothingFlagged(props: Props) {
  return (
    <div className="lanes flag-row">
      <div className={classes("lane-left", styles["flag-cell"], "muted")}>
        {silence(props, "left")}
      </div>
      <div className="spine">
        <strong>No flags</strong>
      </div>
      <div className={classes("lane-right", styles["flag-cell"], "muted")}>
        {silence(props, "right")}
      </div>
    </div>
  );
}
