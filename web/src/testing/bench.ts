// A bench of one screen with nothing around it: no server, no database, what it writes is at hand.
import catalogueTests from "../../../docs/catalogue.json";
import type { Measure, Test } from "../api/catalogue";
import type { Answer, Preview, Screen, Written } from "../api/screens";
import { Drafts } from "../state/device/drafts";
import { memory } from "../state/device/memory";
import { Outbox } from "../state/device/outbox";
import { Sender } from "../state/device/sender";
import type { Json } from "../state/domain/fields";
import { keyMeasures } from "../state/domain/fields";
import { Bench } from "../state/screen/bench";

const OWNER = { clinic: "c", user: "u" };

/** As the server hands it out. */
export const TESTS = catalogueTests as unknown as Test[];

export function testOf(code: string): Test {
  const found = TESTS.find((test) => test.code === code);
  if (!found) throw new Error(`${code} is not in the catalogue`);
  return found;
}

export function measureOf(test: Test, code: string): Measure {
  const found = test.measures.find((measure) => measure.code === code);
  if (!found) throw new Error(`${test.code} has no ${code}`);
  return found;
}

interface Entry {
  test: string;
  side: "left" | "right" | null;
  values: Record<string, Json>;
}

export const screenOf = (entries: Entry[] = [], parts: object = {}): Screen =>
  ({
    record: { id: "s", entries, overrides: [], date: "2026-09-14", purpose: "hip_complaint" },
    athlete: { name: "Ilse Varga" },
    revision: 1,
    state: "open",
    late: [],
    clashes: [],
    facts: [],
    arrangements: [],
    complaint: null,
    ...parts,
  }) as unknown as Screen;

/** `sent`: everything that was written, in the order it left. */
export function benchOf(entries: Entry[] = [], reading: Preview["reading"] | null = null) {
  const keep = memory();
  const outbox = new Outbox(keep, OWNER);
  const sent: Answer[] = [];
  const write = async (_screen: string, answers: Answer[]): Promise<Written> => {
    sent.push(...answers);
    return { revision: 2, late: [], beside: [], skew_seconds: null };
  };
  const sender = new Sender(outbox, "device", write);
  const read = async (): Promise<Preview> => {
    if (!reading) throw new Error("no reading is known");
    return { revision: 1, reading, faults: [] };
  };
  const bench = new Bench(
    "s",
    screenOf(entries),
    new Drafts(keep, OWNER, "s"),
    outbox,
    sender,
    read,
    keyMeasures({ tests: TESTS } as Parameters<typeof keyMeasures>[0]),
  );
  return { bench, sent, outbox };
}
