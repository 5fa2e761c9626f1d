import type { ComponentType } from "react";
import { Link, useParams } from "react-router";
import type { Session } from "../../api/session";
import { isLicensed, useSession } from "../../components/base/session";
import { Shell } from "../../components/layout/Shell";
import { SETTINGS } from "../../state/domain/addresses";
import { Audit } from "./Audit";
import { CalendarPart } from "./CalendarPart";
import { ClinicFacts } from "./ClinicFacts";
import { ErrorFigures } from "./ErrorFigures";
import { SchoolsPart } from "./SchoolsPart";
import styles from "./settings.module.css";
import { Team } from "./Team";
import { ThisDevice } from "./ThisDevice";

interface PartOf {
  part: string;
  name: string;
  Show: ComponentType;
  /** Whom it is for. */
  whose: "everyone" | "licensed" | "owner";
}

const PARTS: readonly PartOf[] = [
  { part: "device", name: "This device", Show: ThisDevice, whose: "everyone" },
  { part: "schools", name: "Schools", Show: SchoolsPart, whose: "everyone" },
  { part: "errors", name: "Error figures", Show: ErrorFigures, whose: "everyone" },
  { part: "calendar", name: "Calendar", Show: CalendarPart, whose: "licensed" },
  { part: "clinic", name: "Clinic", Show: ClinicFacts, whose: "owner" },
  { part: "people", name: "People and roles", Show: Team, whose: "owner" },
  { part: "audit", name: "Audit", Show: Audit, whose: "owner" },
];

const isFor = (whose: PartOf["whose"], session: Session): boolean =>
  whose === "everyone" || (whose === "licensed" ? isLicensed(session) : session.role === "owner");

/** What is set for this device, and what the clinic settles for itself. */
export default function SettingsPlace() {
  const session = useSession();
  const { part: chosen } = useParams();
  const parts = PARTS.filter(({ whose }) => isFor(whose, session));
  const { Show } = parts.find((each) => each.part === chosen) ?? parts[0] ?? { Show: ThisDevice };
  return (
    <Shell>
      <div className={styles.settings}>
        <h1>Settings</h1>
        <nav aria-label="Parts of the settings">
          {parts.map(({ part, name }, place) => (
            <Link
              key={part}
              to={`${SETTINGS.path}/${part}`}
              className="plate"
              aria-current={part === chosen || (!chosen && place === 0) ? "page" : undefined}
            >
              {name}
            </Link>
          ))}
        </nav>
        <Show />
      </div>
    </Shell>
  );
}
