import { useEffect, useRef, useState } from "react";
import { useStore } from "../../components/base/useStore";
import { TextField } from "../../components/controls/TextField";
import type { Json, Place } from "../../state/domain/fields";
import type { Bench } from "../../state/screen/bench";

interface Props {
  bench: Bench;
  place: Place;
  label: string;
  type?: "text" | "date";
  hint?: string;
  /** The value of a text; undefined where it cannot be one. */
  read?: (text: string) => Json | undefined;
  /** Said where it cannot be read. */
  unreadable?: string;
}

/** A fact that is typed: kept at every key, written on leaving the field or on Enter. */
export function TextFact({
  bench,
  place,
  label,
  type = "text",
  hint,
  read = (text) => text.trim(),
  unreadable = "That cannot be read.",
}: Props) {
  useStore(bench.state);
  const standing = bench.value(place);
  const [fault, setFault] = useState<string | null>(null);
  const typed = bench.textDraft(place);
  const shown = typed ?? (standing === null || standing === undefined ? "" : String(standing));
  const write = () => {
    const text = bench.textDraft(place);
    if (text === null) return;
    const value = text.trim() === "" ? null : read(text);
    setFault(value === undefined ? unreadable : null);
    if (value !== undefined) bench.write([{ ...place, value }]);
  };
  // What a reload or a step to another part left typed is taken when the field goes.
  const last = useRef(write);
  last.current = write;
  useEffect(() => () => last.current(), []);
  return (
    <TextField
      label={label}
      type={type}
      value={shown}
      fault={fault ?? bench.problem(place)}
      {...(hint ? { hint } : {})}
      onChange={(event) => bench.keepText(place, event.target.value)}
      onBlur={write}
      onKeyDown={(event) => {
        if (event.key === "Enter") write();
      }}
    />
  );
}
