import Modal from "react-bootstrap/Modal";
import { Link } from "react-router";
import type { Catalogue } from "../../api/catalogue";
import { clockFor } from "../../api/device_clock";
import { type Answer, arrangeAction, type Screen, writeAnswers } from "../../api/screens";
import { useServices } from "../../components/base/session";
import { useIds } from "../../components/base/useIds";
import { DialogButtons } from "../../components/controls/DialogButtons";
import { FormField, useServerForm } from "../../components/controls/form";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { deviceName } from "../../state/device/keep";
import { stepTo } from "../../state/domain/addresses";
import type { Action } from "../../state/domain/arranging";
import { actionWords, urgencyName } from "../../state/domain/wording";
import { declines } from "./before_signing";

interface Props {
  screen: Screen;
  catalogue: Catalogue;
  actions: readonly Action[];
  tests: readonly string[];
  onClose: () => void;
  onKept: () => void;
}

const SENT_AT_ONCE = 100;
const actionKey = (place: number) => `action_${place}`;

/** Nothing is signed over in silence: what is open is done, or left with a reason that is kept. */
export function OpenReasons(props: Props) {
  const { screen, catalogue, actions, tests, onClose, onKept } = props;
  const send = useReasons(props);
  const { form, submit, busy, error } = useServerForm<Record<string, string>, void>({
    defaults: Object.fromEntries(
      ["tests", ...actions.map((_, at) => actionKey(at))].map((key) => [key, ""]),
    ),
    send,
    onDone: onKept,
  });
  const names = tests.map(
    (code) => catalogue.tests.find((test) => test.code === code)?.name ?? code,
  );
  return (
    <Modal.Body as="form" onSubmit={submit}>
      <h2 id="sign-title" className="fs-4 mb-2">
        Before signing: what is open
      </h2>
      {actions.map((action, at) => (
        <FormField
          key={`${action.code} ${action.side}`}
          form={form}
          name={actionKey(at)}
          label={`${urgencyName(action.urgency)}, ${actionWords(action, catalogue)}${action.side ? `, ${action.side}` : ""}: why it is not arranged`}
          required
        />
      ))}
      {actions.length > 0 ? (
        <p className="muted">
          Better: cancel, and arrange it. With a reason it is signed and stays in red.
        </p>
      ) : null}
      {tests.length > 0 ? (
        <>
          <FormField form={form} name="tests" label="Why these are not done" required />
          <p>
            {names.join(" · ")}. Each is written as not done, with this reason.{" "}
            <Link to={stepTo(screen.record.id, "bench", tests[0] ?? null)}>
              Go to the bench instead
            </Link>
          </p>
        </>
      ) : null}
      <ProblemNote error={error} />
      <DialogButtons does="Keep the reasons" busy={busy} onCancel={onClose} />
    </Modal.Body>
  );
}

/** Writes them; one id for one item, so that sending it twice writes it once. */
function useReasons({ screen, catalogue, actions, tests }: Props) {
  const { keep } = useServices();
  const id = screen.record.id;
  const idOf = useIds();
  return async (reasons: Record<string, string>) => {
    // A reason typed anew is another answer.
    const answers = declines(catalogue, tests, reasons.tests ?? "", (place) =>
      idOf(`${place} ${reasons.tests}`),
    );
    for (const some of inTurns(answers))
      await writeAnswers(id, some, deviceName(keep), clockFor(some));
    for (const [at, action] of actions.entries()) {
      const note = reasons[actionKey(at)] ?? "";
      await arrangeAction(id, {
        id: idOf(`${action.code} ${action.side} ${note}`),
        action: action.code,
        side: action.side,
        does: "left",
        on: null,
        until: null,
        at_time: null,
        whom: "",
        note,
      });
    }
  };
}

const inTurns = (answers: readonly Answer[]): Answer[][] =>
  Array.from({ length: Math.ceil(answers.length / SENT_AT_ONCE) }, (_, turn) =>
    answers.slice(turn * SENT_AT_ONCE, (turn + 1) * SENT_AT_ONCE),
  );
