import { useQueries } from "@tanstack/react-query";
import { linesOf, VOICES } from "./names";
import { type Kind, type PaperSize, pageQuery, type Sheets } from "./queries";
import styles from "./sheet.module.css";

interface Props {
  screen: string;
  kind: Kind;
  sheets: Sheets;
  paper: PaperSize;
}

/** The pages as they will be printed; the same words for those who do not see them. */
export function Paper({ screen, kind, sheets, paper }: Props) {
  const count = sheets.pages[kind] ?? 1;
  const made = JSON.stringify(sheets[kind]);
  const pages = useQueries({
    queries: Array.from({ length: count }, (_, at) => pageQuery(screen, kind, at + 1, paper, made)),
  });
  const name = VOICES.find((voice) => voice.kind === kind)?.name ?? "";
  return (
    <section
      className={styles.paper}
      aria-label={`${name}, as it will be printed`}
      data-paper={paper}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: it may scroll, and keys must be able to
      tabIndex={0}
    >
      {pages.map((page, at) =>
        page.data ? (
          // biome-ignore lint/suspicious/noArrayIndexKey: pages are known by their order
          <img key={at} src={page.data} alt={`${name}, page ${at + 1} of ${count}`} />
        ) : (
          // biome-ignore lint/suspicious/noArrayIndexKey: pages are known by their order
          <p key={at}>Setting the page</p>
        ),
      )}
      <ul className="only-read-aloud">
        {linesOf(sheets, kind).map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </section>
  );
}
