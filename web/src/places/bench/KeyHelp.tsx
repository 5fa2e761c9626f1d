import Button from "react-bootstrap/Button";
import Modal from "react-bootstrap/Modal";
import { KEY_HELP } from "../../state/domain/keys";
import styles from "./bench.module.css";

export default function KeyHelp({ onHide }: { onHide: () => void }) {
  return (
    <Modal show onHide={onHide} centered aria-labelledby="keys-title">
      <Modal.Body>
        <h2 id="keys-title" className="fs-4 mb-3">
          Keys at the bench
        </h2>
        <dl className={styles.keys}>
          {KEY_HELP.map(([code, key, says]) => (
            <div key={code}>
              <dt>
                <span className="key m-0">{key}</span>
              </dt>
              <dd>{says}</dd>
            </div>
          ))}
        </dl>
        <p>Several trials: type them with spaces between. Arrows stay in the field.</p>
        <Button onClick={onHide}>Close</Button>
      </Modal.Body>
    </Modal>
  );
}
