import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { catalogueQuery } from "../../api/catalogue";
import { readingQuery, screenQuery } from "../../api/screens";
import { Away } from "../../components/Away";
import { ProblemNote } from "../../components/ProblemNote";
import { Shell } from "../../components/Shell";
import { useServices } from "../../components/session";
import { useStore } from "../../components/useStore";
import { BenchHeader } from "../bench/BenchHeader";
import { ChangeList } from "./ChangeList";
import { DifferenceList } from "./DifferenceList";
import { FlagLanes } from "./FlagLanes";
import { ReadingFooter } from "./ReadingFooter";
import { ReadingSide } from "./ReadingSide";
import { UrgentBars } from "./UrgentBars";

/** Judge: flags in their lanes with reasons and what speaks against; sign. */
export function ReadingPlace() {
  const { screen: id = "" } = useParams();
  const { sender, outbox } = useServices();
  useStore(sender.state);
  const catalogue = useQuery(catalogueQuery);
  const screen = useQuery(screenQuery(id));
  const reading = useQuery(readingQuery(id));
  const waiting = outbox.list(id).length;
  const error = screen.error ?? reading.error ?? catalogue.error;
  if (error) {
    return (
      <Shell>
        <div className="p-4">
          <ProblemNote error={error} />
        </div>
      </Shell>
    );
  }
  if (!screen.data || !reading.data || !catalogue.data) {
    return <Away waiting={screen.failureCount > 0 || reading.failureCount > 0} />;
  }
  const refresh = () => {
    void screen.refetch();
    void reading.refetch();
  };
  const found = reading.data.reading;
  return (
    <Shell
      who={<BenchHeader screen={screen.data} />}
      urgent={
        <UrgentBars
          reading={found}
          screen={screen.data}
          catalogue={catalogue.data}
          onChanged={refresh}
        />
      }
      places={
        <Link className="place" to={`/screens/${id}/bench`}>
          Back to the bench
        </Link>
      }
    >
      <div className="reading">
        <section className="reading-middle" aria-label="Reading">
          <h1 className="only-read-aloud">Reading of {screen.data.athlete.name}</h1>
          <FlagLanes reading={found} screen={screen.data} catalogue={catalogue.data} />
          <DifferenceList reading={found} catalogue={catalogue.data} />
          <ChangeList reading={found} catalogue={catalogue.data} />
        </section>
        <ReadingSide
          reading={found}
          screen={screen.data}
          catalogue={catalogue.data}
          onChanged={refresh}
        />
        <ReadingFooter
          screen={screen.data}
          reading={found}
          revision={reading.data.revision}
          waiting={waiting}
          onChanged={refresh}
        />
      </div>
    </Shell>
  );
}
