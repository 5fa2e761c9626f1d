// What Team asks and tells the server.
import { queryOptions } from "@tanstack/react-query";
import { client, type Schema, take } from "../../api/client";

export type User = Schema["UserOut"];
export type UserInput = Schema["UserInput"];

export const usersQuery = queryOptions({
  queryKey: ["users"],
  queryFn: () => take(client.GET("/api/users")),
});

export const addUser = (body: UserInput) => take(client.POST("/api/users", { body }));

export const closeUser = (id: string, archived: boolean) =>
  take(
    client.PATCH("/api/users/{user_id}", { params: { path: { user_id: id } }, body: { archived } }),
  );
