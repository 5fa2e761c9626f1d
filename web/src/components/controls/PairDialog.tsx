import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import Button from "react-bootstrap/Button";
import Modal from "react-bootstrap/Modal";
import { makePairing, pairingQuery } from "../../api/pairing";
import { PAIR } from "../../state/domain/addresses";
import { ProblemNote } from "../marks/ProblemNote";
import { squaresOf } from "../marks/qr";

interface Props {
  screen: string | null;
  onClose: () => void;
}

/** A second device at this screen: its camera reads the squares, once, within two minutes. */
export default function PairDialog({ screen, onClose }: Props) {
  const [round, setRound] = useState(0);
  return (
    <Modal show centered onHide={onClose} aria-labelledby="pair-title">
      <Modal.Body>
        <h2 id="pair-title" className="fs-4 mb-2">
          Take a second device along
        </h2>
        <Code key={round} screen={screen} onAgain={() => setRound(round + 1)} />
        <div className="mt-3">
          <Button variant="quiet" onClick={onClose}>
            Close
          </Button>
        </div>
      </Modal.Body>
    </Modal>
  );
}

function Code({ screen, onAgain }: { screen: string | null; onAgain: () => void }) {
  const [id] = useState<string>(() => crypto.randomUUID());
  const made = useQuery({
    queryKey: ["pairing code", id],
    queryFn: () => makePairing(id, screen),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
    retry: false,
  });
  const came = useQuery({ ...pairingQuery(id), enabled: made.isSuccess });
  const [over, setOver] = useState(false);
  const lives = made.data?.lives_seconds;
  useEffect(() => {
    if (lives === undefined) return;
    const timer = setTimeout(() => setOver(true), lives * 1000);
    return () => clearTimeout(timer);
  }, [lives]);
  if (made.error) return <ProblemNote error={made.error} />;
  if (!made.data) return <p className="muted">Making a code.</p>;
  if (came.data?.used) {
    return (
      <p role="status">
        <strong>It is here.</strong> The other device is signed in as you, and stands at this
        screen. Sign out there when you are done.
      </p>
    );
  }
  if (over) {
    return (
      <p role="status">
        The code is over two minutes old and works no more.{" "}
        <Button onClick={onAgain}>Make a new one</Button>
      </p>
    );
  }
  return <Squares address={`${window.location.origin}${PAIR}#${made.data.code}`} />;
}

function Squares({ address }: { address: string }) {
  const { size, path } = squaresOf(address);
  return (
    <>
      <p>Point its camera here. The code works once, for two minutes.</p>
      <svg
        className="squares"
        viewBox={`0 0 ${size} ${size}`}
        role="img"
        aria-label="Code for the other device"
      >
        <rect width={size} height={size} className="squares-ground" />
        <path d={path} />
      </svg>
      <p className="muted small">
        Or open this address there: <span className="squares-address">{address}</span>
      </p>
    </>
  );
}
