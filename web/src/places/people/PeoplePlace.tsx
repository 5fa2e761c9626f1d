import { useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import Button from "react-bootstrap/Button";
import { type Athlete, athletesQuery } from "../../api/athletes";
import { isStaff, useSession } from "../../components/base/session";
import { TextField } from "../../components/controls/TextField";
import { Shell } from "../../components/layout/Shell";
import { AthleteForm } from "./AthleteForm";
import { AthletePanel } from "./AthletePanel";
import { ImportRecord } from "./ImportRecord";
import { ImportValuesButton } from "./ImportValuesButton";
import { PeopleList } from "./PeopleList";
import styles from "./people.module.css";
import { squadsQuery } from "./queries";
import { SquadRail } from "./SquadRail";
import { usePeopleAddress } from "./usePeopleAddress";

// A list that waits for its flags is looked at again soon.
const AGAIN_MS = 1500;

/** Find an athlete or a squad; the flags of each side at a glance. What is looked for stands in the address. */
export default function PeoplePlace() {
  const session = useSession();
  const { address, change } = usePeopleAddress();
  const { squad, archived, athlete: chosen } = address;
  // What is being typed leads, the address follows: a slow one must not take letters back.
  const [search, setSearch] = useState(address.search);
  const [form, setForm] = useState<Athlete | "new" | null>(null);
  const filter = { search: useDeferredValue(search), squad, archived };
  const list = useInfiniteQuery({
    ...athletesQuery(filter),
    placeholderData: (before) => before,
    refetchInterval: ({ state }) => {
      const athletes = state.data?.pages.flatMap((page) => page.athletes) ?? [];
      return athletes.some(({ last_screen }) => last_screen?.reading === "waiting")
        ? AGAIN_MS
        : false;
    },
  });
  const squads = useQuery(squadsQuery);
  const athletes = list.data?.pages.flatMap((page) => page.athletes);
  return (
    <Shell who={<span className="muted">{session.clinic}</span>}>
      <div className={styles.people}>
        <SquadRail
          squads={squads.data ?? []}
          chosen={squad}
          archived={archived}
          onChoose={(next, old) => change({ squad: next, archived: old })}
        />
        <section className={styles["people-middle"]} aria-label="Athletes">
          <h1 className="only-read-aloud">People</h1>
          <div className={styles["people-tools"]}>
            <TextField
              label="Find by name, reference or sport"
              type="search"
              value={search}
              onChange={(event) => {
                setSearch(event.target.value);
                change({ search: event.target.value });
              }}
              autoFocus
            />
            {isStaff(session) ? <Button onClick={() => setForm("new")}>Add athlete</Button> : null}
            <ImportRecord onImported={() => list.refetch()} />
            <ImportValuesButton
              onTaken={() => {
                void list.refetch();
                void squads.refetch();
              }}
            />
          </div>
          <PeopleList
            athletes={athletes}
            total={list.data?.pages[0]?.total ?? 0}
            error={list.error}
            filtered={search !== "" || squad !== null || archived}
            chosen={chosen}
            onChoose={(id) => change({ athlete: id })}
            onEnd={() => {
              if (list.hasNextPage && !list.isFetchingNextPage) void list.fetchNextPage();
            }}
          />
        </section>
        <AthletePanel
          id={chosen}
          squads={squads.data ?? []}
          onEdit={(whom) => setForm(whom)}
          onChanged={() => list.refetch()}
        />
      </div>
      {form ? (
        <AthleteForm
          athlete={form === "new" ? null : form}
          squads={(squads.data ?? []).filter((candidate) => !candidate.archived)}
          inSquad={squad}
          onClose={() => setForm(null)}
          onSaved={(saved) => {
            setForm(null);
            change({ athlete: saved.id });
            void list.refetch();
            void squads.refetch();
          }}
        />
      ) : null}
    </Shell>
  );
}
