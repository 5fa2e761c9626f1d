import { useState } from "react";
import type { Site } from "../../api/catalogue";
import type { Side } from "../../api/client";
import { MapView } from "../../maps/MapView";
import { codesOn, viewName, viewsFor } from "../../maps/places";
import styles from "./map-row.module.css";

interface Props {
  /** Which of the lists of pain sites. */
  list: string;
  side: Side;
  sites: readonly Site[];
  chosen: string | null;
  onSite: (code: string) => void;
}

/** Where it hurts, tapped on a small drawing: the fewest views that show every site. */
export default function SiteMap({ list, side, sites, chosen, onSite }: Props) {
  const codes = sites.map((site) => site.code);
  const views = viewsFor(list, codes);
  // The sites stand in the order they are named in: the first is looked for first.
  const wanted = chosen ?? codes[0] ?? "";
  const [at, setAt] = useState(() =>
    Math.max(
      0,
      views.findIndex((view) => codesOn(list, view).includes(wanted)),
    ),
  );
  const view = views[at];
  if (!view) return null;
  return (
    <div className={styles.sites}>
      <fieldset className={styles.views} aria-label="Views of where it hurts">
        {views.map((each, index) => (
          <button key={each} type="button" aria-pressed={index === at} onClick={() => setAt(index)}>
            {viewName(each)}
          </button>
        ))}
      </fieldset>
      <div className={`${styles["site-map"]} ${side}`}>
        <MapView
          view={view}
          side={side}
          list={list}
          bones={false}
          points={sites
            .filter((site) => codesOn(list, view).includes(site.code))
            .map((site) => ({
              code: site.code,
              label: site.label,
              mark: site.code === chosen ? "on" : "open",
              says: site.code === chosen ? "here" : "not here",
            }))}
          onPoint={onSite}
        />
      </div>
    </div>
  );
}
