import type { Clash } from "../../api/screens";
import { newAnswer, placeOfAnswer } from "../../state/domain/fields";
import { useServices } from "../base/session";

/** For a place without a bench: one of two answers is to stand. Kept on the device until the server has it. */
export function useChoose(screen: string): (answer: Clash["holds"]) => void {
  const { outbox, sender } = useServices();
  return (answer) => {
    outbox.put(screen, [newAnswer(placeOfAnswer(answer), answer.value)]);
    sender.wake();
  };
}
