import { useState } from "react";
import Button from "react-bootstrap/Button";
import type { Side } from "../../api/client";
import { BodyChart } from "../../maps/BodyChart";
import { LANES } from "../../state/device/lanes";
import { factAt, nothingHurts, sorePlaces, told } from "../../state/screen/story";
import { siteName } from "../../state/screen/story_words";
import { LastVisit } from "./LastVisit";
import type { PartProps } from "./parts";
import styles from "./story.module.css";

interface Props extends PartProps {
  onPlace: (site: string, side: Side) => void;
  onCloser: (view: string, side: Side) => void;
}

/** Where it hurts: one finger, one place. */
export function Where({ bench, catalogue, screen, facts, onPlace, onCloser }: Props) {
  const [view, setView] = useState<"body_front" | "body_back">("body_front");
  const places = sorePlaces(facts);
  const chart = {
    labelOf: (code: string) => siteName(catalogue, code),
    toldAt: (code: string, side: Side) => {
      const place = places.find((each) => each.site === code && each.side === side);
      return place && String(place.now ?? "");
    },
    onPoint: onPlace,
    onCloser,
  };
  const loose = places.filter((place) => place.side === null);
  return (
    <div className={styles.where}>
      <fieldset className={styles.faces} aria-label="Which way round">
        {(["body_front", "body_back"] as const).map((each) => (
          <button
            key={each}
            type="button"
            className="plate"
            aria-pressed={view === each}
            onClick={() => setView(each)}
          >
            {each === "body_front" ? "Front" : "Back"}
          </button>
        ))}
      </fieldset>
      <div className={styles.bodies} data-shown={view}>
        <BodyChart view="body_front" {...chart} />
        <BodyChart view="body_back" {...chart} />
      </div>
      {loose.map(({ site }) => (
        <p key={site} className={styles.loose}>
          <strong>{siteName(catalogue, site)}</strong>: on which side?{" "}
          {LANES.map((side) => (
            <button
              key={side}
              type="button"
              className={`plate ${side}`}
              onClick={() => onPlace(site, side)}
            >
              {side}
            </button>
          ))}
        </p>
      ))}
      {places.length > 0 ? <Region {...{ bench, catalogue, facts }} /> : null}
      {places.length === 0 ? (
        <Button
          variant="quiet"
          aria-pressed={nothingHurts(facts)}
          onClick={() =>
            bench.write([
              { ...told("complaint.region"), value: nothingHurts(facts) ? null : "none" },
            ])
          }
        >
          {nothingHurts(facts) ? "Nothing hurts: told" : "Nothing hurts"}
        </Button>
      ) : null}
      <LastVisit {...{ bench, catalogue, screen, facts }} about="where" />
    </div>
  );
}

/** What the places count as: it follows from them until somebody says otherwise. */
function Region({ bench, catalogue, facts }: Pick<PartProps, "bench" | "catalogue" | "facts">) {
  const written = factAt(facts, "complaint.region");
  const regions = Object.entries(catalogue.story.words.regions).filter(([code]) => code !== "none");
  return (
    <label className={styles.region}>
      Counts as a complaint of the
      <select
        className="form-select"
        value={typeof written === "string" ? written : ""}
        onChange={(event) =>
          bench.write([{ ...told("complaint.region"), value: event.target.value || null }])
        }
      >
        <option value="">as the places say</option>
        {regions.map(([code, words]) => (
          <option key={code} value={code}>
            {words.toLowerCase()}
          </option>
        ))}
      </select>
    </label>
  );
}
