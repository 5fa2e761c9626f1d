// What an answer changed: two readings held against each other, for the line that says it there and then.
import type { Catalogue } from "../../api/catalogue";
import type { Side } from "../../api/client";
import type { Reading } from "../../api/screens";
import { isUrgent } from "../../state/domain/urgent";
import { flagName, gateWords, toDo, urgencyName } from "../../state/domain/wording";

export interface Consequence {
  side: Side | null;
  /** What is urgent or held is said first and louder. */
  weight: "urgent" | "held" | "plain";
  says: string;
}

interface Item extends Consequence {
  key: string;
  gone: string;
}

const LOUDEST: Record<Consequence["weight"], number> = { urgent: 0, held: 1, plain: 2 };

/** What is urgent first, then what is held, what is new, what is no more. Empty where nothing changed. */
export function consequences(
  before: Reading | null,
  after: Reading | null,
  catalogue: Catalogue,
): Consequence[] {
  if (!before || !after || before.record !== after.record) return [];
  const was = new Map(itemsOf(before, catalogue).map((item) => [item.key, item]));
  const is = new Map(itemsOf(after, catalogue).map((item) => [item.key, item]));
  const come = [...is.values()].filter((item) => !was.has(item.key));
  const gone = [...was.values()].filter((item) => !is.has(item.key));
  return [
    ...come.map(({ side, weight, says }) => ({ side, weight, says })),
    ...gone.map(({ side, gone: says }) => ({ side, weight: "plain" as const, says })),
  ].sort((one, other) => LOUDEST[one.weight] - LOUDEST[other.weight]);
}

function itemsOf(reading: Reading, catalogue: Catalogue): Item[] {
  return [
    ...reading.flags.map((flag) => {
      const name = flagName(catalogue, flag.code);
      const urgent = flag.urgency !== null && isUrgent({ urgency: flag.urgency });
      const says = urgent
        ? `${urgencyName(flag.urgency ?? "")}: ${name}. ${toDo(flag.urgency ?? "")}`
        : `${name}, ${flag.strength}.`;
      return {
        key: `flag ${flag.code} ${flag.side} ${flag.urgency} ${flag.strength}`,
        side: flag.side,
        weight: urgent ? ("urgent" as const) : ("plain" as const),
        says,
        gone: `${name}, ${flag.strength}: no more.`,
      };
    }),
    ...(reading.shut ?? []).map((item) => ({
      key: `gate ${item.gate} ${item.side}`,
      side: item.side,
      weight: "held" as const,
      says: `Held: ${gateWords(catalogue, item.gate)}`,
      gone: `No longer held: ${gateWords(catalogue, item.gate)}`,
    })),
    ...(reading.coverage.unexamined ?? []).map((item) => ({
      key: `look ${item.structure} ${item.side}`,
      side: item.side,
      weight: "plain" as const,
      says: `To be looked at: ${item.name}.`,
      gone: `No longer called for: ${item.name}.`,
    })),
  ];
}

/**
 * What the last answer of this hand changed, until the next one. The readings are held against what it read
 * as before that answer: read again, however often, the same answer changed the same.
 */
export class SinceLastAnswer {
  private before: Reading | null = null;
  private last: Reading | null = null;
  private answered = 0;

  /** The reading of what stands after `answered` answers. */
  read(reading: Reading, answered: number, catalogue: Catalogue): Consequence[] {
    if (answered !== this.answered) this.before = this.last;
    this.answered = answered;
    this.last = reading;
    return consequences(this.before, reading, catalogue);
  }
}
