import {
  type ChangeEventHandler,
  type FocusEventHandler,
  type KeyboardEventHandler,
  type Ref,
  useId,
} from "react";
import Form from "react-bootstrap/Form";

export interface FieldProps {
  label: string;
  type?: "text" | "password" | "date" | "time" | "search";
  hint?: string;
  autoComplete?: string;
  autoFocus?: boolean;
  required?: boolean;
}

interface Props extends FieldProps {
  fault?: string | null;
  value?: string;
  name?: string;
  readOnly?: boolean;
  ref?: Ref<HTMLInputElement>;
  onChange?: ChangeEventHandler<HTMLInputElement>;
  onBlur?: FocusEventHandler<HTMLInputElement>;
  onKeyDown?: KeyboardEventHandler<HTMLInputElement>;
}

/** A labelled field with its hint and its fault beside it. */
export function TextField({ label, fault, hint, type = "text", ...rest }: Props) {
  const id = useId();
  const below = [hint ? `${id}-hint` : "", fault ? `${id}-fault` : ""].filter(Boolean).join(" ");
  return (
    <div className="mb-3">
      <Form.Label htmlFor={id}>{label}</Form.Label>
      <Form.Control
        id={id}
        type={type}
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
