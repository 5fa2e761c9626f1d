import Modal from "react-bootstrap/Modal";
import type { Session } from "../../api/session";
import { NameAndPassword } from "./NameAndPassword";

interface Props {
  session: Session;
  onEntered: (session: Session) => void;
}

/** Over the place where the work stopped: nothing typed is lost, and it goes on right there. */
export function SignInAgain({ session, onEntered }: Props) {
  return (
    <Modal show centered backdrop="static" keyboard={false} aria-labelledby="again-title">
      <Modal.Body>
        <h2 id="again-title" className="fs-4 mb-2">
          Sign in again
        </h2>
        <p>
          Your session has ended. What you typed is kept on this device and is sent once{" "}
          {session.name} is back.
        </p>
        <NameAndPassword onEntered={onEntered} />
      </Modal.Body>
    </Modal>
  );
}
