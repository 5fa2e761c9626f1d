// Parts of a reading, only what a test is about.
import type { Catalogue } from "../api/catalogue";
import type { Reading } from "../api/screens";
import { TESTS } from "./bench";

export const CATALOGUE = {
  tests: TESTS,
  sites: {},
  flag_names: {
    "instability.atfl": "Front outer ligament lax",
    "tight.soleus": "Soleus tight",
    "danger.hip": "Hip to be seen today",
  },
  gates: { fracture_doubt: "A bone is not cleared." },
  openings: { fracture_doubt: "Press the bone." },
  retakes: {},
  criteria: { hop: "Hop for distance", lunge: "Lunge", heel_rise: "Heel rise" },
  questions: { "red_flags.breathless_or_chest_pain": "Short of breath?" },
  story: { topic: [] },
} as unknown as Catalogue;

export const actionOf = (
  code: string,
  side: "left" | "right" | null,
  urgency: string,
  parts: object = {},
) => ({
  code,
  side,
  urgency,
  from: null,
  to: null,
  start: null,
  end: null,
  because: [],
  says: null,
  tests: [],
  ...parts,
});

export const flagOf = (code: string, side: "left" | "right" | null, parts: object = {}) => ({
  code,
  kind: code.split(".")[0],
  side,
  strength: "likely",
  urgency: null,
  because: [{ at: "entries[0]", rule: "A1", says: "Moves more." }],
  against: [],
  settle: [],
  uncompared: false,
  sources: [],
  ...parts,
});

export const readingOf = (parts: object = {}): Reading =>
  ({
    record: "s",
    rules: "2",
    fingerprint: null,
    flags: [],
    ruled_down: [],
    actions: [],
    retake: [],
    held: [],
    shut: [],
    differences: [],
    follows: [],
    next: [],
    ask: [],
    criteria: [],
    changes: [],
    coverage: { planned: 0, done: 0, declined: 0, open: [], unexamined: [] },
    advice: [],
    ...parts,
  }) as unknown as Reading;
