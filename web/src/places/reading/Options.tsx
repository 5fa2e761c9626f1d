import { useId, useState } from "react";
import Button from "react-bootstrap/Button";
import styles from "./reading.module.css";

interface Props {
  options: readonly string[];
  about: string;
}

/** What a licensed practitioner may choose from: options, never orders. */
export function Options({ options, about }: Props) {
  const [open, setOpen] = useState(false);
  const id = useId();
  if (options.length === 0) return null;
  return (
    <>
      <Button
        variant="quiet"
        aria-expanded={open}
        aria-controls={id}
        aria-label={`Options: ${about}`}
        onClick={() => setOpen(!open)}
      >
        Options
      </Button>
      <ul id={id} className={styles.options} hidden={!open}>
        {[...new Set(options)].map((option) => (
          <li key={option}>{option}</li>
        ))}
      </ul>
    </>
  );
}
