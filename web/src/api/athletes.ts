import { infiniteQueryOptions, queryOptions } from "@tanstack/react-query";
import { client, type Schema, take } from "./client";
import { withinPoll } from "./polling";

export type Athlete = Schema["AthleteOut"];
export type AthleteInput = Schema["AthleteInput"];
export type AthleteEdit = Schema["AthleteEdit"];
export type Squad = Schema["SquadOut"];

export interface AthleteFilter {
  search: string;
  squad: string | null;
  archived: boolean;
}

const PAGE = 100;

/** A page after the other, as the list is scrolled. */
export const athletesQuery = (filter: AthleteFilter) =>
  infiniteQueryOptions({
    queryKey: ["athletes", filter],
    queryFn: ({ signal, pageParam }) =>
      take(
        client.GET("/api/athletes", {
          signal: withinPoll(signal),
          params: {
            query: {
              search: filter.search,
              archived: filter.archived,
              skip: pageParam,
              most: PAGE,
              ...(filter.squad ? { squad: filter.squad } : {}),
            },
          },
        }),
      ),
    initialPageParam: 0,
    getNextPageParam: (last, pages) => {
      const known = pages.reduce((sum, page) => sum + page.athletes.length, 0);
      return known < last.total && last.athletes.length > 0 ? known : undefined;
    },
  });

export const athleteQuery = (id: string) =>
  queryOptions({
    queryKey: ["athlete", id],
    queryFn: () =>
      take(client.GET("/api/athletes/{athlete_id}", { params: { path: { athlete_id: id } } })),
  });

export const editAthlete = (id: string, body: AthleteEdit) =>
  take(client.PATCH("/api/athletes/{athlete_id}", { params: { path: { athlete_id: id } }, body }));
