import type { Site, Test } from "../../api/catalogue";
import type { Side } from "../../api/client";
import { classes } from "../../components/base/classes";
import { part } from "../../components/base/part";
import type { Lane } from "../../state/domain/fields";
import { asPain, type Pain } from "../../state/domain/pain";
import type { Bench } from "../../state/screen/bench";
import styles from "./bench.module.css";

const { Place: SiteMap } = part(
  () => import("./SiteMap"),
  () => null,
);

interface Props {
  bench: Bench;
  test: Test;
  entryKey: string;
  lane: Lane;
  /** The lane it was opened from. */
  side: Side;
  sites: Site[];
  onClose: () => void;
}

const SCORES = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10];

/** How much, where, and whether it is the pain they came with: asked only when it hurts. */
export function PainCard({ bench, test, entryKey, lane, side, sites, onClose }: Props) {
  const place = { test: test.code, side: lane, key: entryKey, field: "pain" };
  const pain = asPain(bench.value(place));
  const write = (next: Pain | null) => bench.write([{ ...place, value: next }]);
  const change = (part: Partial<Pain>) => write({ ...pain, present: true, ...part });
  const offered = sites.filter((site) => site.areas.includes(test.pain_sites));
  return (
    <>
      <div className={styles.toggles}>
        <button
          type="button"
          aria-pressed={pain?.present === false}
          onClick={() => write(pain?.present === false ? null : { present: false })}
        >
          No pain
        </button>
        <button
          type="button"
          aria-pressed={pain?.present === true}
          onClick={() => (pain?.present ? write(null) : change({}))}
        >
          Hurts
        </button>
      </div>
      {pain?.present ? (
        <>
          <fieldset
            className={classes(styles.toggles, styles.scores)}
            aria-label="How much, 0 to 10"
          >
            {SCORES.map((score) => (
              <button
                key={score}
                type="button"
                aria-pressed={pain.nrs === score}
                onClick={() => change({ nrs: score })}
              >
                {score}
              </button>
            ))}
          </fieldset>
          <SiteMap
            list={`pain_${test.pain_sites}`}
            side={lane ?? side}
            sites={offered}
            chosen={pain.site ?? null}
            onSite={(site) => change({ site })}
          />
          <fieldset className={styles.toggles} aria-label="Where">
            {offered.map((site) => (
              <button
                key={site.code}
                type="button"
                aria-pressed={pain.site === site.code}
                onClick={() => change({ site: site.code })}
              >
                {site.label}
              </button>
            ))}
          </fieldset>
          <fieldset className={styles.toggles} aria-label="Is it your pain?">
            <span>Is it the pain they came with?</span>
            {[true, false].map((familiar) => (
              <button
                key={String(familiar)}
                type="button"
                aria-pressed={pain.familiar === familiar}
                onClick={() => change({ familiar })}
              >
                {familiar ? "Yes" : "No"}
              </button>
            ))}
          </fieldset>
        </>
      ) : null}
      <button type="button" className={styles["card-close"]} onClick={onClose}>
        Done
      </button>
    </>
  );
}
