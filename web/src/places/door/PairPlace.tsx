import { useMutation } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { pairDevice, type Session } from "../../api/session";
import { Mark } from "../../components/Mark";
import { ProblemNote } from "../../components/ProblemNote";
import { PAIR, PLACES, stepTo } from "../../state/addresses";

interface Props {
  onEntered: (session: Session) => Promise<void>;
}

/** A device that comes with a code: in as the one who made it, at their screen. */
export default function PairPlace({ onEntered }: Props) {
  const navigate = useNavigate();
  const [code] = useState(() => window.location.hash.slice(1));
  const tried = useRef(false);
  const pair = useMutation({
    mutationFn: () => pairDevice(code),
    onSuccess: async ({ session, screen }) => {
      await onEntered(session);
      void navigate(screen ? stepTo(screen, "bench") : PLACES[0].path, { replace: true });
    },
  });
  useEffect(() => {
    // Out of the address before anything else: it is in no history and no bookmark.
    window.history.replaceState(null, "", PAIR);
    if (!code || tried.current) return;
    tried.current = true;
    pair.mutate();
  }, [code, pair]);
  return (
    <main className="away">
      <Mark size={44} />
      <h1>{pair.error || !code ? "This code does not open anything" : "Coming in"}</h1>
      {code ? null : <p>Make a code on the other device, and point this camera at it.</p>}
      <ProblemNote error={pair.error} />
      {pair.error || !code ? <a href={PLACES[0].path}>Sign in instead</a> : null}
    </main>
  );
}
