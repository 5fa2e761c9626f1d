import type { Catalogue } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Reading } from "../../api/screens";
import { classes } from "../../components/base/classes";
import { SideMark } from "../../components/marks/SideMark";
import { CLOSE_VIEWS } from "../../maps/BodyChart";
import { MapView } from "../../maps/MapView";
import { codesOn, PAIN } from "../../maps/places";
import { laneOf } from "../../state/device/lanes";
import type { Bench } from "../../state/screen/bench";
import { type Facts, type SorePlace, sorePlaces, told } from "../../state/screen/story";
import { siteName } from "../../state/screen/story_words";
import { Scale } from "./Scale";
import styles from "./story.module.css";
import { Thinkable } from "./Thinkable";

interface Props {
  bench: Bench;
  catalogue: Catalogue;
  facts: Facts;
  reading: Reading | null;
  side: Side;
  /** The place in hand: its scales stand open. */
  at: string | null;
  /** The closer picture that stands open on this side. */
  close: string | null;
  onAt: (site: string | null) => void;
  onClose: (view: string | null) => void;
  onPlace: (site: string) => void;
}

/** One side: where it hurts and how much, a closer picture, and what that makes thinkable. */
export function LaneColumn(props: Props) {
  const { side, facts, catalogue, close, at } = props;
  const places = sorePlaces(facts).filter((place) => place.side === side);
  return (
    <section
      className={classes(laneOf(side), styles.lane)}
      aria-label={side === "left" ? "Left" : "Right"}
    >
      <h2 className={classes(styles["lane-head"], side)}>
        <SideMark side={side} large />
        <span>{side}</span>
      </h2>
      {places.length === 0 ? <p className={styles.nothing}>Nothing told here.</p> : null}
      <ul className={styles.places}>
        {places.map((place) => (
          <Place key={place.site} {...props} place={place} open={place.site === at} />
        ))}
      </ul>
      {close ? (
        <CloseView {...props} view={close} catalogue={catalogue} />
      ) : (
        <Thinkable {...props} />
      )}
    </section>
  );
}

function Place({
  bench,
  catalogue,
  side,
  place,
  open,
  onAt,
}: Props & { place: SorePlace; open: boolean }) {
  const name = siteName(catalogue, place.site);
  const write = (field: "now" | "worst") => (value: number | null) =>
    bench.write([{ ...told(field, side, place.site), value }]);
  const remove = () => {
    onAt(null);
    bench.write(
      (["now", "worst", "here"] as const).map((field) => ({
        ...told(field, side, place.site),
        value: null,
      })),
    );
  };
  const said = `now ${place.now ?? "open"}, worst ${place.worst ?? "open"}`;
  return (
    <li ref={open ? intoView : null}>
      <div className={styles["place-head"]}>
        <button
          type="button"
          className={styles["place-name"]}
          aria-expanded={open}
          onClick={() => onAt(open ? null : place.site)}
        >
          <strong>{name}</strong> <span>{said}</span>
        </button>
        <button
          type="button"
          className={styles.remove}
          aria-label={`Not here: ${name}, ${side}`}
          onClick={remove}
        >
          Not here
        </button>
      </div>
      {open ? (
        <>
          <Scale of={name} label="now" side={side} value={place.now} onPick={write("now")} />
          <Scale of={name} label="worst" side={side} value={place.worst} onPick={write("worst")} />
        </>
      ) : null}
    </li>
  );
}

function CloseView({ catalogue, facts, side, view, onClose, onPlace }: Props & { view: string }) {
  const here = new Map(
    sorePlaces(facts)
      .filter((place) => place.side === side)
      .map((place) => [place.site, place]),
  );
  const sites = catalogue.sites.filter((site) => site.told);
  const shown = codesOn(PAIN, view);
  return (
    <section ref={intoView} className={styles.close} aria-label={`Closer picture, ${side}`}>
      <fieldset className={styles.views} aria-label={`Closer views, ${side}`}>
        {CLOSE_VIEWS.map(([each, name]) => (
          <button
            key={each}
            type="button"
            aria-pressed={each === view}
            onClick={() => onClose(each)}
          >
            {name}
          </button>
        ))}
        <button type="button" onClick={() => onClose(null)}>
          Close
        </button>
      </fieldset>
      <div className={classes(styles.room, side)}>
        <MapView
          view={view}
          side={side}
          list={PAIN}
          bones={false}
          points={sites
            .filter((site) => shown.includes(site.code))
            .map((site) => ({
              code: site.code,
              label: site.label,
              mark: here.has(site.code) ? "on" : "open",
              says: here.has(site.code) ? "here" : "not here",
            }))}
          onPoint={onPlace}
        />
      </div>
    </section>
  );
}

/** On a narrow screen the lanes lie below the chart. */
const intoView = (drawn: HTMLElement | null) => drawn?.scrollIntoView({ block: "nearest" });
