import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import type { Catalogue } from "../../api/catalogue";
import { inTurns } from "../../api/polling";
import { type Changes, preview, readChanges, type Screen, screenQuery } from "../../api/screens";
import { deviceName } from "../../state/device/keep";
import type { DeviceServices } from "../../state/device/services";
import { type Json, keyMeasures, type Place, valueField } from "../../state/domain/fields";
import { outOfRange } from "../../state/domain/kinds";
import { Bench } from "../../state/screen/bench";
import { heardOf } from "../../state/screen/others";
import { useServices } from "../base/session";

// What one writes the other sees within two seconds, with time to spare for the way.
const FOLLOW_EVERY_MS = 1200;
// Long enough to load another place of the same screen, which then goes on with what this one knows.
const KEEP_MS = 8000;

interface Kept {
  id: string;
  services: DeviceServices;
  bench: Bench;
  closing: ReturnType<typeof setTimeout> | undefined;
}

let kept: Kept | null = null;

function take(id: string, services: DeviceServices, make: () => Bench): Kept {
  if (kept?.id === id && kept.services === services) {
    clearTimeout(kept.closing);
    return kept;
  }
  close(kept);
  kept = { id, services, bench: make(), closing: undefined };
  return kept;
}

function close(which: Kept | null): void {
  if (!which) return;
  clearTimeout(which.closing);
  which.bench.close();
  if (kept === which) kept = null;
}

/** The bench of one screen, the same from place to place; it follows what others do to it. */
export function useBench(
  id: string,
  screen: Screen | undefined,
  catalogue: Catalogue | undefined,
): Bench | null {
  const services = useServices();
  const queries = useQueryClient();
  const opened = screen !== undefined && catalogue !== undefined;
  // At once, and the same each time: a place that waited for its bench would be drawn twice.
  const own = opened ? take(id, services, () => benchFor(id, screen, catalogue, services)) : null;

  useEffect(() => {
    if (!own) return;
    clearTimeout(own.closing);
    const follow = async (signal: AbortSignal) => {
      const changes = await own.bench.follow((revision) =>
        readChanges(id, revision, deviceName(services.keep), signal),
      );
      if (!changes || signal.aborted) return;
      heardOf(id, changes.others);
      queries.setQueryData(screenQuery(id).queryKey, (old) => old && withHead(old, changes));
    };
    const stop = inTurns(follow, FOLLOW_EVERY_MS);
    return () => {
      stop();
      own.closing = setTimeout(() => close(own), KEEP_MS);
    };
  }, [id, own, services, queries]);

  return own?.bench ?? null;
}

function benchFor(
  id: string,
  screen: Screen,
  catalogue: Catalogue,
  services: DeviceServices,
): Bench {
  return new Bench(
    id,
    screen,
    services.drafts(id),
    services.outbox,
    services.sender,
    (answers, signal) => preview(id, answers, deviceName(services.keep), signal),
    keyMeasures(catalogue),
    (place, value) => quickFault(catalogue, place, value),
  );
}

/** Story, plan, overrides and schools as they are now; the entries are the bench's own. */
function withHead(screen: Screen, { head, state }: Changes): Screen {
  if (!head) return screen;
  const { record, ...own } = head;
  const entries = screen.record.entries;
  return { ...screen, ...own, state, record: { ...record, entries } };
}

function quickFault(catalogue: Catalogue, place: Place, value: Json): string | null {
  const test = catalogue.tests.find((candidate) => candidate.code === place.test);
  const measure = test?.measures.find((candidate) => valueField(candidate.code) === place.field);
  return measure ? outOfRange(measure, value) : null;
}
