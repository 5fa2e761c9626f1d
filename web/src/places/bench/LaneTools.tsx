import { useEffect, useRef, useState } from "react";
import type { Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import { classes } from "../../components/base/classes";
import { part } from "../../components/base/part";
import { useStore } from "../../components/base/useStore";
import { FIRST, laneOf, SECOND } from "../../state/device/lanes";
import { entryLane, isValueField, placeOf } from "../../state/domain/fields";
import { painWords } from "../../state/domain/pain";
import type { Bench } from "../../state/screen/bench";
import styles from "./bench.module.css";
import { TOOLS, type Tool, type ToolLaneProps, type ToolsProps } from "./tools";

// What they open comes once the bench stands, so that it is here when the server is not.
const { Place: ToolPopover, load: loadTools } = part(
  () => import("./ToolPopover"),
  () => null,
);
const TOOLS_AFTER_MS = 1000;

/** Pain, note, not done, and what else a lane may need: each opens only when asked for. */
export function LaneTools(props: ToolsProps) {
  useStore(props.bench.state);
  useEffect(() => {
    // One that fails is tried again where it is opened.
    const timer = setTimeout(() => void loadTools().catch(() => undefined), TOOLS_AFTER_MS);
    return () => clearTimeout(timer);
  }, []);
  return (
    <div className="lanes tools-row">
      <ToolLane {...props} side={FIRST} />
      <div className="spine">{props.of ? <strong>{props.of}</strong> : null}</div>
      <ToolLane {...props} side={SECOND} />
    </div>
  );
}

function ToolLane(props: ToolLaneProps) {
  const { bench, test, entryKey, side } = props;
  const [open, setOpen] = useState<Tool | null>(null);
  const opener = useRef<HTMLButtonElement | null>(null);
  const lane = entryLane(test, side);
  const held = (field: string) => {
    const key = field === "declined" ? "" : entryKey;
    return bench.value({ test: test.code, side: lane, key, field });
  };
  const close = () => {
    setOpen(null);
    opener.current?.focus();
  };
  const labels: Record<Tool, string> = {
    pain: painWords(held("pain")),
    note: held("note") ? "Note ✓" : "Note",
    declined: held("declined") ? "Not done ✓" : "Not done",
    more: "More",
  };
  return (
    <div className={classes(laneOf(side), styles.tools)}>
      {TOOLS.filter((tool) => tool !== "more" || props.now !== null).map((tool) => (
        <button
          key={tool}
          type="button"
          aria-expanded={open === tool}
          aria-label={`${labels[tool]}, ${side}`}
          onClick={(event) => {
            opener.current = event.currentTarget;
            setOpen(open === tool ? null : tool);
          }}
        >
          {labels[tool]}
        </button>
      ))}
      {open ? (
        <ToolPopover
          {...props}
          tool={open}
          lane={lane}
          hasValues={holdsValues(bench, test, side)}
          opener={opener.current}
          onClose={close}
        />
      ) : null}
    </div>
  );
}

function holdsValues(bench: Bench, test: Test, side: Side): boolean {
  const { fields, waiting } = bench.state.getState();
  return [...fields.keys(), ...waiting.keys()].some((key) => {
    const place = placeOf(key);
    const here = place.test === test.code && (place.side === side || place.side === null);
    return here && isValueField(place.field) && bench.value(place) !== null;
  });
}
