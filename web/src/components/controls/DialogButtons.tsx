import Button from "react-bootstrap/Button";

interface Props {
  /** What the form does, in a word. */
  does: string;
  busy: boolean;
  onCancel: () => void;
}

/** The end of every form in a dialog: do it, or leave it. */
export function DialogButtons({ does, busy, onCancel }: Props) {
  return (
    <div className="d-flex gap-2 mt-3">
      <Button type="submit" disabled={busy}>
        {does}
      </Button>
      <Button variant="quiet" onClick={onCancel}>
        Cancel
      </Button>
    </div>
  );
}
