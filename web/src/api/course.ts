import { queryOptions } from "@tanstack/react-query";
import { client, type Schema, take } from "./client";

export type Course = Schema["CourseOut"];
export type Line = Schema["LineOut"];
export type LinePoint = Schema["PointOut"];
export type CourseEvent = Schema["EventOut"];

/** Each test for the return with every criterion; anew whenever the course is. */
export const returnTestsQuery = (athlete: string) =>
  queryOptions({
    queryKey: ["return tests", athlete],
    queryFn: () =>
      take(
        client.GET("/api/athletes/{athlete_id}/return-tests", {
          params: { path: { athlete_id: athlete } },
        }),
      ),
    refetchOnMount: "always",
  });

export const courseQuery = (athlete: string) =>
  queryOptions({
    queryKey: ["course", athlete],
    queryFn: () =>
      take(
        client.GET("/api/athletes/{athlete_id}/course", {
          params: { path: { athlete_id: athlete } },
        }),
      ),
  });
