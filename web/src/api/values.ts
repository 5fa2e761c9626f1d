// A table of values coming in: what its columns become, the dry run, and taking it.
import { client, type Schema, take } from "./client";
import { lastStep, type Step } from "./steps";

export type Columns = Schema["ColumnsOut"];
export type CheckedTable = Schema["CheckedTableOut"];
export type TakenTable = Schema["TakenTableOut"];
export type Mapped = Schema["MappedInput"];

export interface Along {
  onStep: (step: Step) => void;
  signal: AbortSignal;
}

export const readColumns = (text: string) =>
  take(client.POST("/api/values/columns", { body: { text } }));

export async function checkTable(body: Mapped, along: Along): Promise<CheckedTable> {
  const lines = await take(
    client.POST("/api/values/check", { body, parseAs: "stream", signal: along.signal }),
  );
  const { checked } = await lastStep(lines as ReadableStream<Uint8Array>, along.onStep);
  return checked ?? { faults: [], screens: [] };
}

export async function importTable(body: Mapped, along: Along): Promise<TakenTable> {
  const lines = await take(
    client.POST("/api/values", { body, parseAs: "stream", signal: along.signal }),
  );
  const { taken } = await lastStep(lines as ReadableStream<Uint8Array>, along.onStep);
  return taken ?? { screens: 0, new_athletes: 0 };
}
