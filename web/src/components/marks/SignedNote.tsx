import type { Bench } from "../../state/screen/bench";
import { useStore } from "../base/useStore";

/** What is entered after signing waits: said where it is entered. */
export function SignedNote({ bench }: { bench: Bench }) {
  const signed = useStore(bench.state, (state) => state.signed);
  if (!signed) return null;
  return (
    <p className="caution" role="status">
      This screen is signed. What you enter here waits for an amendment.
    </p>
  );
}
