import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import Button from "react-bootstrap/Button";
import { useNavigate } from "react-router";
import { lookAtPairing, pairDevice, type Session } from "../../api/session";
import { Mark } from "../../components/marks/Mark";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { PAIR, PLACES, stepTo } from "../../state/domain/addresses";

interface Props {
  /** Who is signed in on this device already: nobody comes in over them. */
  here: Session | null;
  onEntered: (session: Session) => Promise<void>;
}

/** A device that comes with a code: whose it is stands there first, and a hand says yes. */
export default function PairPlace({ here, onEntered }: Props) {
  const [code] = useState(() => window.location.hash.slice(1));
  useEffect(() => {
    // Out of the address before anything else: it is in no history and no bookmark.
    window.history.replaceState(null, "", PAIR);
  }, []);
  return (
    <main className="away">
      <Mark size={44} />
      {here ? <SignedIn name={here.name} /> : <Ask code={code} onEntered={onEntered} />}
    </main>
  );
}

function SignedIn({ name }: { name: string }) {
  return (
    <>
      <h1>{name} is signed in here</h1>
      <p>A code opens nothing over somebody. Sign out first, then point the camera again.</p>
      <a href={PLACES[0].path}>Go on as {name}</a>
    </>
  );
}

function Ask({ code, onEntered }: { code: string } & Pick<Props, "onEntered">) {
  const navigate = useNavigate();
  const whose = useQuery({
    queryKey: ["pairing", "whose"],
    queryFn: () => lookAtPairing(code),
    enabled: code !== "",
    gcTime: 0,
    retry: false,
  });
  const pair = useMutation({
    mutationFn: () => pairDevice(code),
    onSuccess: async ({ session, screen }) => {
      await onEntered(session);
      void navigate(screen ? stepTo(screen, "bench") : PLACES[0].path, { replace: true });
    },
  });
  const error = pair.error ?? whose.error;
  if (error || !code) {
    return (
      <>
        <h1>This code does not open anything</h1>
        {code ? null : <p>Make a code on the other device, and point this camera at it.</p>}
        <ProblemNote error={error} />
        <a href={PLACES[0].path}>Sign in instead</a>
      </>
    );
  }
  if (!whose.data) return <h1>Looking whose code this is</h1>;
  const { name, clinic } = whose.data;
  return (
    <>
      <h1>
        Enter as {name}, on {name}’s device?
      </h1>
      <p>
        {clinic}. What is written here from now on is {name}’s. If this is not {name}’s device, or
        somebody sent you here, do not enter.
      </p>
      <p className="d-flex gap-2 flex-wrap">
        <Button disabled={pair.isPending} onClick={() => pair.mutate()}>
          Enter as {name}
        </Button>
        <a className="btn btn-quiet" href={PLACES[0].path}>
          No, sign in instead
        </a>
      </p>
    </>
  );
}
