import { queryOptions } from "@tanstack/react-query";
import { client, type Schema, take } from "./client";

export type Course = Schema["CourseOut"];
export type Line = Schema["LineOut"];
export type LinePoint = Schema["PointOut"];
export type CourseEvent = Schema["EventOut"];

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
