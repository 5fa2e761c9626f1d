import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { catalogueQuery } from "../../api/catalogue";
import { readingQuery } from "../../api/readings";
import { screenQuery } from "../../api/screens";
import { Download } from "../../components/controls/Download";
import { TwoValues } from "../../components/controls/TwoValues";
import { useChoose } from "../../components/controls/useChoose";
import { PlaceAway } from "../../components/layout/Away";
import { PlaceProblem } from "../../components/layout/PlaceProblem";
import { ScreenHeader } from "../../components/layout/ScreenHeader";
import { Shell } from "../../components/layout/Shell";
import { UrgentBars } from "../../components/layout/UrgentBars";
import { AuditLink } from "../../components/marks/AuditLink";
import { Others } from "../../components/marks/Others";
import { SaveMark, useUnsaved } from "../../components/marks/SaveMark";
import { useFollow } from "../../components/screen/useFollow";
import { allSaved } from "../../state/device/saving";
import { LateAnswers } from "./LateAnswers";
import { Ledger } from "./Ledger";
import { LedgerHead } from "./LedgerHead";
import { MoveScreen } from "./MoveScreen";
import { signatureQuery } from "./queries";
import { ReadingAge } from "./ReadingAge";
import { ReadingFooter } from "./ReadingFooter";
import styles from "./reading.module.css";
import { SignedVersion } from "./SignedVersion";
import { TodaysRules } from "./TodaysRules";
import { Versions } from "./Versions";

/** Judge: what stands on each side, with reasons and what speaks against; sign. Signed ones one by one. */
export default function ReadingPlace() {
  const { screen: id = "", signature } = useParams();
  const version = signature === undefined ? null : Number(signature);
  const unsaved = useUnsaved(id);
  const catalogue = useQuery(catalogueQuery);
  const screen = useQuery(screenQuery(id));
  const reading = useQuery({ ...readingQuery(id), refetchOnMount: "always" });
  const signed = useQuery({ ...signatureQuery(id, version ?? 0), enabled: version !== null });
  const refresh = () => {
    void screen.refetch();
    void reading.refetch();
  };
  const choose = useChoose(id);
  const open = screen.data?.state === "open" && version === null;
  useFollow(id, open ? (screen.data?.revision ?? null) : null, refresh);
  const error = screen.error ?? reading.error ?? catalogue.error ?? signed.error;
  const opened = screen.data;
  if (error && !(opened && reading.data)) {
    return <PlaceProblem error={error} />;
  }
  if (!opened || !reading.data || !catalogue.data || (version !== null && !signed.data)) {
    return <PlaceAway screen={id} waiting={screen.failureCount > 0 || reading.failureCount > 0} />;
  }
  const known = catalogue.data;
  const found = signed.data?.reading ?? reading.data.reading;
  const number = version ?? reading.data.signature;
  const shown = signed.data ? { ...opened, record: signed.data.record } : opened;
  const parts = { reading: found, screen: shown, catalogue: known, onChanged: refresh };
  return (
    <Shell
      who={<ScreenHeader screen={shown} />}
      screen={id}
      saved={
        <>
          <Others screen={id} catalogue={known} />
          <SaveMark unsaved={unsaved} />
        </>
      }
      urgent={
        version === null ? (
          <>
            <UrgentBars {...parts} />
            <TwoValues clashes={opened.clashes} catalogue={known} onChoose={choose} />
          </>
        ) : null
      }
    >
      <div className={styles.reading}>
        <section className={styles.ledger} aria-label="Reading">
          <h1 className="only-read-aloud">Reading of {opened.athlete.name}</h1>
          {signed.data ? <SignedVersion signed={signed.data} catalogue={known} /> : null}
          {version === null ? (
            <ReadingAge
              failed={reading.isError}
              behind={opened.state === "open" && !allSaved(unsaved)}
            />
          ) : null}
          <LedgerHead {...parts} frozen={version !== null} />
          <Ledger {...parts} made={signed.data?.differences ?? []} />
          {number === null ? null : (
            <TodaysRules screen={id} number={number} signed={found} catalogue={known} />
          )}
          <div className={styles.records}>
            <LateAnswers screen={opened} catalogue={known} onChanged={refresh} />
            <Versions screen={opened} />
            <div className="plates">
              <Download screen={opened} />
              <MoveScreen screen={opened} onMoved={refresh} />
              <AuditLink noun="screen" record={id} />
            </div>
            <p className="caution">
              Findings for a licensed practitioner to weigh. Not a diagnosis; local protocols come
              first. Read by rules {found.rules}.
            </p>
          </div>
        </section>
        <ReadingFooter
          screen={opened}
          catalogue={known}
          shown={{ reading: found, identity: reading.data.identity }}
          refreshing={screen.isFetching || reading.isFetching}
          unsaved={unsaved}
          version={version}
          onChanged={refresh}
        />
      </div>
    </Shell>
  );
}
