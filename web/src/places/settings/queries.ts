// What Settings asks and tells the server.
import { queryOptions } from "@tanstack/react-query";
import { client, type Schema, take } from "../../api/client";

export type User = Schema["UserOut"];
export type UserInput = Schema["UserInput"];
export type Clinic = Schema["ClinicOut"];
export type School = Schema["SchoolOut"];
export type Schools = NonNullable<Schema["ClinicEdit"]["schools"]>;
export type AuditRow = Schema["AuditRow"];

export const sessionsQuery = queryOptions({
  queryKey: ["sessions"],
  queryFn: () => take(client.GET("/api/sessions")),
  staleTime: 0,
});

export const usersQuery = queryOptions({
  queryKey: ["users"],
  queryFn: () => take(client.GET("/api/users")),
});

export const addUser = (body: UserInput) => take(client.POST("/api/users", { body }));

export const closeUser = (id: string, archived: boolean) =>
  take(
    client.PATCH("/api/users/{user_id}", { params: { path: { user_id: id } }, body: { archived } }),
  );

export const clinicQuery = queryOptions({
  queryKey: ["clinic"],
  queryFn: () => take(client.GET("/api/clinic")),
});

export const editClinic = (body: Partial<Schema["ClinicEdit"]>) =>
  take(client.PATCH("/api/clinic", { body: body as Schema["ClinicEdit"] }));

/** What other schools would alter in the screens that are open now. */
export const previewQuery = (schools: Schools) =>
  queryOptions({
    queryKey: ["schools preview", schools],
    queryFn: () => take(client.POST("/api/clinic/preview", { body: { schools } })),
    staleTime: 0,
  });

export const auditQuery = (noun: "athlete" | "screen", key: string, before: number | null) =>
  queryOptions({
    queryKey: ["audit", noun, key, before],
    queryFn: () =>
      take(
        client.GET("/api/audit", {
          params: { query: before === null ? { noun, key } : { noun, key, before } },
        }),
      ),
    staleTime: 0,
  });
