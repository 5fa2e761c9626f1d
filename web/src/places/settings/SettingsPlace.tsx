import type { ComponentType } from "react";
import { Link, useParams } from "react-router";
import { Shell } from "../../components/Shell";
import { useSession } from "../../components/session";
import { SETTINGS } from "../../state/addresses";
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
  owner: boolean;
}

const PARTS: readonly PartOf[] = [
  { part: "device", name: "This device", Show: ThisDevice, owner: false },
  { part: "schools", name: "Schools", Show: SchoolsPart, owner: false },
  { part: "errors", name: "Error figures", Show: ErrorFigures, owner: false },
  { part: "calendar", name: "Calendar", Show: CalendarPart, owner: false },
  { part: "clinic", name: "Clinic", Show: ClinicFacts, owner: true },
  { part: "people", name: "People and roles", Show: Team, owner: true },
  { part: "audit", name: "Audit", Show: Audit, owner: true },
];

/** What is set for this device, and what the clinic settles for itself. */
export default function SettingsPlace() {
  const session = useSession();
  const { part: chosen } = useParams();
  const parts = PARTS.filter((part) => !part.owner || session.role === "owner");
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
