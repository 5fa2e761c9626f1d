import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { catalogueQuery } from "../../api/catalogue";
import { readingQuery } from "../../api/readings";
import { screenQuery } from "../../api/screens";
import { isLicensed, useSession } from "../../components/base/session";
import { PlaceAway } from "../../components/layout/Away";
import { PlaceProblem } from "../../components/layout/PlaceProblem";
import { ScreenHeader } from "../../components/layout/ScreenHeader";
import { Shell } from "../../components/layout/Shell";
import { UrgentBars } from "../../components/layout/UrgentBars";
import { Others } from "../../components/marks/Others";
import { SaveMark, useUnsaved } from "../../components/marks/SaveMark";
import { useFollow } from "../../components/screen/useFollow";
import { SETTINGS, stepTo } from "../../state/domain/addresses";
import { BEFORE, VOICES } from "./names";
import { OwnWords } from "./OwnWords";
import { Paper } from "./Paper";
import { type Kind, type Sheets, sheetsQuery } from "./queries";
import styles from "./sheet.module.css";
import { TakeAway } from "./TakeAway";
import { usePaperSize } from "./usePaperSize";

/** Hand over: one reading in three voices, the words mended, taken away in the form its reader needs. */
export default function SheetPlace() {
  const { screen: id = "", kind: asked } = useParams();
  const kind = VOICES.find((voice) => voice.kind === asked)?.kind ?? "letter";
  const screen = useQuery(screenQuery(id));
  const catalogue = useQuery(catalogueQuery);
  const reading = useQuery({ ...readingQuery(id), refetchOnMount: "always" });
  const sheets = useQuery({ ...sheetsQuery(id), refetchOnMount: "always" });
  const unsaved = useUnsaved(id);
  const session = useSession();
  const [paper, choosePaper] = usePaperSize();
  const refresh = () => {
    void screen.refetch();
    void reading.refetch();
    void sheets.refetch();
  };
  // What somebody examines meanwhile belongs on the page before it is taken along.
  useFollow(id, screen.data?.state === "open" ? screen.data.revision : null, refresh);
  const error = screen.error ?? sheets.error ?? catalogue.error ?? reading.error;
  const opened = screen.data;
  if (error && !(opened && sheets.data)) {
    return <PlaceProblem error={error} />;
  }
  if (!opened || !sheets.data || !catalogue.data || !reading.data) {
    return <PlaceAway screen={id} waiting={sheets.failureCount + screen.failureCount > 0} />;
  }
  const found = sheets.data;
  const parts = { screen: id, kind, sheets: found, paper };
  return (
    <Shell
      who={<ScreenHeader screen={opened} />}
      screen={id}
      saved={
        <>
          <Others screen={id} catalogue={catalogue.data} />
          <SaveMark unsaved={unsaved} />
        </>
      }
      urgent={
        <UrgentBars
          reading={reading.data.reading}
          screen={opened}
          catalogue={catalogue.data}
          onChanged={refresh}
        />
      }
    >
      <div className={styles.place}>
        <h1 className={styles.title}>
          {TITLES[found[kind].head.status]}{" "}
          <span className="muted">{found[kind].head.notice || "Three sheets, one reading."}</span>
        </h1>
        <Voices screen={id} kind={kind} sheets={found} />
        <Paper {...parts} />
        <OwnWords
          key={kind}
          {...parts}
          opened={opened}
          licensed={isLicensed(session)}
          onKept={refresh}
        />
        <TakeAway {...parts} opened={opened} onPaper={choosePaper} onTaken={refresh} />
        <Before screen={id} sheets={found} kind={kind} owner={session.role === "owner"} />
      </div>
    </Shell>
  );
}

const TITLES = {
  draft: "Read it, mend the words, sign.",
  signed: "Signed. Each leaves as it stands.",
  amended: "Amended. Each says so, and why.",
} as const;

function Voices({ screen, kind, sheets }: { screen: string; kind: Kind; sheets: Sheets }) {
  return (
    <nav className={styles.voices} aria-label="Sheets">
      {VOICES.map((voice) => {
        const pages = sheets.pages[voice.kind] ?? 1;
        const own = sheets.words.filter((each) => each.sheet === voice.kind && each.by).length;
        return (
          <Link
            key={voice.kind}
            to={stepTo(screen, "sheet", voice.kind)}
            replace
            aria-current={voice.kind === kind ? "page" : undefined}
          >
            <strong>{voice.name}</strong>
            <span>{voice.whom}</span>
            <span className="muted">
              {pages} {pages === 1 ? "page" : "pages"}
              {own > 0 ? `, ${own} in your words` : ""}
            </span>
          </Link>
        );
      })}
    </nav>
  );
}

interface BeforeProps {
  screen: string;
  sheets: Sheets;
  kind: Kind;
  owner: boolean;
}

/** What keeps a sheet from being final, each with the way to where it is seen to. */
function Before({ screen, sheets, kind, owner }: BeforeProps) {
  const draft = sheets[kind].head.status === "draft";
  return (
    <footer className={`bench-footer ${styles.foot}`}>
      <span className={styles.before}>
        <strong>Before it leaves</strong>
        {draft ? <span>not signed</span> : null}
        {sheets.before.map((what) =>
          owner && what !== "letters" && what !== "long_letter" ? (
            <Link key={what} to={`${SETTINGS.path}/clinic`}>
              {BEFORE[what]}
            </Link>
          ) : (
            <span key={what}>{BEFORE[what]}</span>
          ),
        )}
        {!draft && sheets.before.length === 0 ? <span>nothing is open.</span> : null}
        <span className="muted">local protocols come first</span>
      </span>
      <Link className={draft ? "btn btn-primary" : "btn btn-quiet"} to={stepTo(screen, "reading")}>
        {draft ? "Sign the reading…" : "Reading"}
      </Link>
    </footer>
  );
}
