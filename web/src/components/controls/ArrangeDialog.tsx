import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import Modal from "react-bootstrap/Modal";
import { DAY_KEY } from "../../api/day";
import { arrangeAction } from "../../api/screens";
import type { ActionOf, Does } from "../../state/domain/arranging";
import { isUrgent } from "../../state/domain/urgent";
import { urgencyName } from "../../state/domain/wording";
import { useSession, useToday } from "../base/session";
import { useIds } from "../base/useIds";
import { ProblemNote } from "../marks/ProblemNote";
import { SideMark } from "../marks/SideMark";
import { DialogButtons } from "./DialogButtons";
import { FormField, useServerForm } from "./form";

interface Props {
  screen: string;
  action: ActionOf;
  also?: readonly ActionOf[];
  name: string;
  onClose: () => void;
  onChanged: () => void;
}

const WAYS: readonly (readonly [Does, string, string])[] = [
  ["arranged", "Arranged", "Somebody sees to it on a day."],
  ["again", "Look again", "A second look between two days."],
  ["closed", "Nothing more to do", "It leaves Day. The reason is kept."],
  ["left", "Not arranged", "It stays in red until somebody has it in hand. The reason is kept."],
];

/** One step: who sees to it and when, days for a second look, or why nothing is done. */
export function ArrangeDialog({ screen, action, also = [], name, onClose, onChanged }: Props) {
  const session = useSession();
  const day = useToday();
  const [does, setDoes] = useState<Does>("arranged");
  const urgent = isUrgent(action);
  const queries = useQueryClient();
  const idFor = useIds();
  const dated = does === "arranged" || does === "again";
  const { form, fields, submit, busy, error } = useServerForm({
    defaults: {
      whom: session.name,
      on: day,
      until: "",
      at_time: "",
      note: "",
    },
    send: async ({ whom, on, until, at_time, note }) => {
      const step = {
        does,
        on: dated ? on : null,
        until: does === "again" ? until || null : null,
        at_time: does === "arranged" ? at_time || null : null,
        whom: does === "arranged" ? whom : "",
        note,
      };
      for (const each of [action, ...also]) {
        const { code, side } = each;
        const id = idFor(JSON.stringify([code, side, step]));
        await arrangeAction(screen, { id, action: code, side, ...step });
      }
    },
    onDone: () => {
      // Whoever shows the day, or counts what cannot wait, looks again.
      void queries.invalidateQueries({ queryKey: DAY_KEY });
      onChanged();
    },
  });
  const [, , says] = WAYS.find(([way]) => way === does) ?? ["", "", ""];
  return (
    <Modal show centered onHide={onClose} aria-labelledby="arrange-title">
      <Modal.Body as="form" onSubmit={submit}>
        <h2 id="arrange-title" className="fs-4 mb-2">
          {urgencyName(action.urgency)}: {name}{" "}
          {action.side ? <SideMark side={action.side} /> : null}
        </h2>
        <fieldset className="plates mb-2" aria-label="What is done">
          {WAYS.filter(([way]) => way !== "left" || urgent).map(([way, label]) => (
            <button
              key={way}
              type="button"
              className="plate"
              aria-pressed={does === way}
              onClick={() => setDoes(way)}
            >
              {label}
            </button>
          ))}
        </fieldset>
        <p className="muted">{says}</p>
        {does === "arranged" ? <FormField form={form} name="whom" label="Who sees to it" /> : null}
        {dated ? (
          <div className="fields-in-a-row">
            <FormField
              form={form}
              name="on"
              label={does === "again" ? "From" : "On"}
              type="date"
              required
            />
            {does === "again" ? (
              <FormField form={form} name="until" label="To" type="date" required />
            ) : (
              <FormField form={form} name="at_time" label="At (if known)" type="time" />
            )}
          </div>
        ) : null}
        <FormField
          form={form}
          name="note"
          label={dated ? "How (if it helps)" : "Why"}
          required={!dated}
        />
        <ProblemNote error={error} known={fields} />
        <DialogButtons does="Keep" busy={busy} onCancel={onClose} />
      </Modal.Body>
    </Modal>
  );
}
