import { useEffect, useRef } from "react";
import Overlay from "react-bootstrap/Overlay";
import Popover from "react-bootstrap/Popover";
import { classes } from "../../components/base/classes";
import { useStore } from "../../components/base/useStore";
import { SideMark } from "../../components/marks/SideMark";
import { ofSide } from "../../state/device/lanes";
import styles from "./bench.module.css";
import { MoreCard } from "./MoreCard";
import { NotDoneCard } from "./NotDoneCard";
import { NoteCard } from "./NoteCard";
import { PainCard } from "./PainCard";
import type { Tool, ToolLaneProps } from "./tools";

interface Props extends ToolLaneProps {
  tool: Tool;
  lane: ToolLaneProps["side"] | null;
  hasValues: boolean;
  opener: HTMLElement | null;
  onClose: () => void;
}

const NAMES: Record<Tool, string> = {
  pain: "pain",
  note: "note",
  declined: "Not done",
  more: "more",
};

/** What a lane's tool opens: beside its button, in the lane's colour. Escape and a tap elsewhere close it. */
export default function ToolPopover(props: Props) {
  const { tool, side, opener, onClose } = props;
  useStore(props.bench.state);
  return (
    <Overlay show target={opener} placement="top" rootClose onHide={onClose} transition={false}>
      <Popover
        className={classes(styles["tool-card"], ofSide(side))}
        role="dialog"
        aria-label={`${NAMES[tool]}, ${side}`}
      >
        <Card {...props} key={tool} />
      </Popover>
    </Overlay>
  );
}

function Card(props: Props) {
  const { tool, side, now, onClose } = props;
  const card = useRef<HTMLDivElement>(null);
  useEffect(() => {
    card.current?.querySelector<HTMLElement>("button, input, textarea")?.focus();
  }, []);
  return (
    <div ref={card}>
      <SideMark side={side} />
      {tool === "pain" ? <PainCard {...props} /> : null}
      {tool === "note" ? <NoteCard {...props} /> : null}
      {tool === "declined" ? <NotDoneCard {...props} /> : null}
      {tool === "more" && now ? <MoreCard {...props} now={now} onClose={onClose} /> : null}
    </div>
  );
}
