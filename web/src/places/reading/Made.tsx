import type { Side } from "../../api/client";
import type { Signed } from "../../api/screens";
import { urgencyName } from "../../state/wording";
import styles from "./reading.module.css";

export type MadeDifference = NonNullable<Signed["differences"]>[number];

export const CAUSES = { answers: "by what was recorded", rules: "by newer rules" } as const;

/** What a flag was before, where an amendment or newer rules changed it. */
export function Made({
  made,
  code,
  side,
}: {
  made: readonly MadeDifference[];
  code: string;
  side: Side | null;
}) {
  return made
    .filter((item) => item.what === "flags" && item.code === code && item.side === side)
    .map((item) => (
      <div key={item.cause} className={styles.made}>
        {item.before ? `was ${stateWords(item.before)}` : "was not there"}
        {item.after ? "" : ", is gone"} <span className="muted">{CAUSES[item.cause]}</span>
      </div>
    ));
}

/** Strength first, then what it asks for. */
export const stateWords = ({ strength, urgency }: Record<string, string>): string =>
  [strength, urgency ? urgencyName(urgency).toLowerCase() : null].filter(Boolean).join(", ");
