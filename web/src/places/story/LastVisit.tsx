import { useQuery } from "@tanstack/react-query";
import { screenQuery, screensQuery } from "../../api/screens";
import { placeKey, placeOf } from "../../state/domain/fields";
import { dayWords } from "../../state/domain/wording";
import { factWords } from "../../state/screen/story_words";
import { offeredFrom, type Part } from "./last_visit";
import type { PartProps } from "./parts";
import styles from "./story.module.css";

type Props = Pick<PartProps, "bench" | "catalogue" | "screen" | "facts"> & { about: Part };

/** What was told last time, line by line: nothing is taken that nobody looked at. */
export function LastVisit({ bench, catalogue, screen, facts, about }: Props) {
  const own = screen.record;
  const screens = useQuery(screensQuery(screen.athlete.id));
  const last = screens.data?.find((each) => each.id !== own.id && each.date <= own.date);
  const told = useQuery({ ...screenQuery(last?.id ?? ""), enabled: last !== undefined });
  if (!last || !told.data) return null;
  const lines = offeredFrom(told.data.facts, facts, about).flatMap((fact) => {
    const key = placeKey({ ...fact, side: fact.side ?? null });
    const says = factWords(catalogue, key, fact.value);
    return says === null ? [] : [{ key, says, value: fact.value }];
  });
  if (lines.length === 0) return null;
  return (
    <section className={styles.last} aria-label="Told last time">
      <h2 className={styles.title}>
        <span>Told last time</span>
        <small className="muted">{dayWords(last.date)}</small>
      </h2>
      <ul>
        {lines.map(({ key, says, value }) => (
          <li key={key}>
            <span>{says}</span>
            <button
              type="button"
              className="plate"
              aria-label={`Still so: ${says}`}
              onClick={() => bench.write([{ ...placeOf(key), value }])}
            >
              Still so
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
