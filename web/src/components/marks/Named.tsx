import { useId } from "react";
import Form from "react-bootstrap/Form";

interface Props {
  named: boolean;
  onNamed: (named: boolean) => void;
  disabled?: boolean;
  says?: string;
}

/** Names leave only where somebody asks for them. */
export function Named({ named, onNamed, disabled = false, says = "With names" }: Props) {
  const id = useId();
  return (
    <Form.Check
      type="switch"
      id={id}
      label={`${says}${named ? "" : ": no, the reference alone"}`}
      checked={named}
      disabled={disabled}
      onChange={(event) => onNamed(event.target.checked)}
    />
  );
}
