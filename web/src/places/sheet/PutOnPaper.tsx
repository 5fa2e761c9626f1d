import { useState } from "react";
import { amendScreen, type Screen } from "../../api/screens";
import { PasswordDialog } from "../../components/controls/PasswordDialog";
import { fieldName } from "./names";
import { type Words, wordSheet } from "./queries";
import styles from "./sheet.module.css";

interface Props {
  screen: Screen;
  field: Words;
  /** None gives the field back to our words. */
  value: string | null;
  onDone: () => void;
  onClose: () => void;
}

/** Other words on a signed paper: a new version of it, or an amendment where they are part of what was signed. */
export function PutOnPaper({ screen, field, value, onDone, onClose }: Props) {
  // One id for one change, so that sending it twice makes one.
  const [id] = useState(() => crypto.randomUUID());
  const { sheet, field: name, amend } = field;
  const said = { sheet, field: name, value };
  return (
    <PasswordDialog
      title={`${fieldName(name)}: ${amend ? "amend the signed screen" : "a new version of the paper"}`}
      does={amend ? "Amend" : "Put on the paper"}
      {...(amend ? { reason: "Why the signed screen is amended" } : {})}
      send={({ reason, password }) =>
        amend
          ? amendScreen(screen.record.id, {
              id,
              stands_on: screen.signatures.at(-1)?.id ?? "",
              reason,
              password,
              words: [said],
            })
          : wordSheet(screen.record.id, { id, ...said, password })
      }
      {...{ onDone, onClose }}
    >
      <blockquote className={styles.said}>{value ?? field.ours}</blockquote>
      <p>
        {amend
          ? "What was signed stays as it was; the paper says that it was amended, and why."
          : "What was signed stays as it was; the paper says that these words are later, and whose."}
      </p>
    </PasswordDialog>
  );
}
