import { useId } from "react";
import Form from "react-bootstrap/Form";

interface Props {
  label: string;
  value: string;
  onChange: (value: string) => void;
  type?: "text" | "password" | "date" | "search";
  fault?: string | null;
  hint?: string;
  autoComplete?: string;
  autoFocus?: boolean;
  required?: boolean;
  list?: string;
}

/** A labelled field with its hint and its fault beside it. */
export function TextField({ label, value, onChange, fault, hint, type = "text", ...rest }: Props) {
  const id = useId();
  const below = [hint ? `${id}-hint` : "", fault ? `${id}-fault` : ""].filter(Boolean).join(" ");
  return (
    <div className="mb-3">
      <Form.Label htmlFor={id}>{label}</Form.Label>
      <Form.Control
        id={id}
        type={type}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        isInvalid={Boolean(fault)}
        aria-describedby={below || undefined}
        maxLength={200}
        {...rest}
      />
      {hint ? (
        <div id={`${id}-hint`} className="muted small">
          {hint}
        </div>
      ) : null}
      {fault ? (
        <div id={`${id}-fault`} className="fault small">
          {fault}
        </div>
      ) : null}
    </div>
  );
}
