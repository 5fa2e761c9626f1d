import { useEffect, useRef, useState } from "react";
import type { Site, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Screen } from "../../api/screens";
import { classes } from "../../components/classes";
import { SideMark } from "../../components/SideMark";
import { useStore } from "../../components/useStore";
import type { Bench } from "../../state/bench";
import { entryLane, isValueField, placeOf } from "../../state/fields";
import type { Question } from "../../state/questions";
import styles from "./bench.module.css";
import { MoreCard } from "./MoreCard";
import { NotDoneCard } from "./NotDoneCard";
import { NoteCard } from "./NoteCard";
import { PainCard, painWords } from "./PainCard";

interface Props {
  bench: Bench;
  test: Test;
  entryKey: string;
  screen: Screen;
  now: Question | null;
  sites: Site[];
}

const TOOLS = ["pain", "note", "declined", "more"] as const;
type Tool = (typeof TOOLS)[number];

/** Pain, note, not done, and what else a lane may need: each opens only when asked for. */
export function LaneTools(props: Props) {
  useStore(props.bench.state);
  return (
    <div className="lanes tools-row">
      <ToolLane {...props} side="left" />
      <div className="spine" />
      <ToolLane {...props} side="right" />
    </div>
  );
}

function ToolLane(props: Props & { side: Side }) {
  const { bench, test, entryKey, side } = props;
  const [open, setOpen] = useState<Tool | null>(null);
  const card = useRef<HTMLDivElement>(null);
  const opener = useRef<HTMLButtonElement | null>(null);
  const lane = entryLane(test, side);
  const held = (field: string) => {
    const key = field === "declined" ? "" : entryKey;
    return bench.value({ test: test.code, side: lane, key, field });
  };
  const hasValues = holdsValues(bench, test, side);
  useEffect(() => {
    if (open) card.current?.querySelector<HTMLElement>("button, input, textarea")?.focus();
  }, [open]);
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
    <div className={classes(`lane-${side}`, styles.tools)}>
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
        <div
          ref={card}
          className={styles["tool-card"]}
          role="dialog"
          aria-label={`${open === "declined" ? "Not done" : open}, ${side}`}
          onKeyDown={(event) => {
            if (event.key === "Escape") close();
          }}
        >
          <SideMark side={side} />
          {open === "pain" ? <PainCard {...props} lane={lane} onClose={close} /> : null}
          {open === "note" ? <NoteCard {...props} lane={lane} onClose={close} /> : null}
          {open === "declined" ? (
            <NotDoneCard {...props} lane={lane} hasValues={hasValues} onClose={close} />
          ) : null}
          {open === "more" && props.now ? (
            <MoreCard {...props} now={props.now} onClose={close} />
          ) : null}
        </div>
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
