import Modal from "react-bootstrap/Modal";
import type { Session } from "../../api/session";
import { NameAndPassword } from "./NameAndPassword";
import type { Closed } from "./useEntry";

interface Props {
  session: Session;
  why: Closed;
  onEntered: (session: Session) => void;
}

const TITLES: Record<Closed, string> = { ended: "Sign in again", locked: "Locked" };
const WORDS: Record<Closed, string> = {
  ended: "Your session has ended.",
  locked: "Nobody was here for a while, so the screen is out of sight.",
};

/** Over the place where the work stopped: nothing typed is lost, and it goes on right there. */
export default function SignInAgain({ session, why, onEntered }: Props) {
  return (
    <Modal show centered backdrop="static" keyboard={false} aria-labelledby="again-title">
      <Modal.Body>
        <h2 id="again-title" className="fs-4 mb-2">
          {TITLES[why]}
        </h2>
        <p>
          {WORDS[why]} What you typed is kept on this device and is sent once {session.name} is
          back.
        </p>
        <NameAndPassword onEntered={onEntered} />
      </Modal.Body>
    </Modal>
  );
}
