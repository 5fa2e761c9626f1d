// A table of values coming in: what its columns become, the dry run, and taking it.
import { client, type Schema, take } from "./client";

export type Columns = Schema["ColumnsOut"];
export type CheckedTable = Schema["CheckedTableOut"];
export type Mapped = Schema["MappedInput"];

export const readColumns = (text: string) =>
  take(client.POST("/api/values/columns", { body: { text } }));

export const checkTable = (body: Mapped) => take(client.POST("/api/values/check", { body }));

export const importTable = (body: Mapped) => take(client.POST("/api/values", { body }));
