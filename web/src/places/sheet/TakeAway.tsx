import { useMutation } from "@tanstack/react-query";
import Button from "react-bootstrap/Button";
import type { Screen } from "../../api/screens";
import { saveFile } from "../../components/base/saveFile";
import { isLicensed, useSession } from "../../components/base/session";
import { AuditLink } from "../../components/marks/AuditLink";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { momentWords } from "../../state/domain/audit";
import { Formats } from "./Formats";
import { VOICES } from "./names";
import { handOver, type Kind, type PaperSize, printed, type Sheets } from "./queries";
import styles from "./sheet.module.css";

interface Props {
  screen: string;
  kind: Kind;
  sheets: Sheets;
  paper: PaperSize;
  opened: Screen;
  onPaper: (size: PaperSize) => void;
  onTaken: () => void;
}

const SIZES: readonly [PaperSize, string][] = [
  ["a4", "A4"],
  ["us-letter", "US letter"],
];

/** The forms in which it leaves, and where it went so far. */
export function TakeAway({ screen, kind, sheets, paper, opened, onPaper, onTaken }: Props) {
  const session = useSession();
  const { status, date } = sheets[kind].head;
  const pdf = useMutation({
    mutationFn: () => handOver(screen, kind, paper),
    onSuccess: (file) => {
      saveFile(file, `north-stride-${kind}-${date}.pdf`);
      onTaken();
    },
  });
  const print = useMutation({
    mutationFn: () => printed(screen, kind),
    onSuccess: () => {
      onTaken();
      window.print();
    },
  });
  const noun = VOICES.find((voice) => voice.kind === kind)?.noun ?? "";
  return (
    <section
      className={styles.away}
      aria-label="Take it along"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: it may scroll, and keys must be able to
      tabIndex={0}
    >
      <h2>
        This {noun} <span className="muted">{status === "draft" ? "draft across it" : status}</span>
      </h2>
      {isLicensed(session) ? (
        <>
          <div className="plates">
            {SIZES.map(([size, says]) => (
              <button
                key={size}
                type="button"
                className="plate"
                aria-pressed={paper === size}
                onClick={() => onPaper(size)}
              >
                {says}
              </button>
            ))}
          </div>
          <div className={styles.forms}>
            <Button
              variant={status === "draft" ? "quiet" : "primary"}
              disabled={pdf.isPending}
              onClick={() => pdf.mutate()}
            >
              PDF
            </Button>
            <Button variant="quiet" disabled={print.isPending} onClick={() => print.mutate()}>
              Print
            </Button>
          </div>
          <ProblemNote error={pdf.error ?? print.error} />
          <Formats opened={opened} onTaken={onTaken} />
        </>
      ) : (
        <p className="muted">Taking a sheet along is for licensed practitioners.</p>
      )}
      <h2>Went out</h2>
      {sheets.went.length === 0 ? <p className="muted">Nothing yet.</p> : null}
      <ul className={styles.went}>
        {sheets.went.map((each) => (
          <li key={each.at}>
            <strong>{momentWords(each.at, session.time_zone)}</strong> {each.form}
            {each.status === "draft" ? ", draft" : ""}
            {each.named ? "" : ", without the name"}. {each.by}
          </li>
        ))}
      </ul>
      <AuditLink noun="screen" record={screen} />
    </section>
  );
}
