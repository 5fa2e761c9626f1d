// The parts of a story in the order they are asked, and what each is given.
import type { Catalogue } from "../../api/catalogue";
import type { Reading, Screen } from "../../api/screens";
import type { Bench } from "../../state/screen/bench";
import type { Facts, Told } from "../../state/screen/story";

export interface PartProps {
  bench: Bench;
  catalogue: Catalogue;
  screen: Screen;
  facts: Facts;
  told: Told;
  reading: Reading | null;
}

export const PARTS = [
  { part: "where", tab: "Where", title: "Where does it hurt?", says: "One finger, one place." },
  {
    part: "when",
    tab: "When and how",
    title: "How did it begin?",
    says: "What it does, and what has changed.",
  },
  {
    part: "danger",
    tab: "Danger",
    title: "What must not be missed",
    says: "Read them out. Open is not no.",
  },
  {
    part: "before",
    tab: "Before",
    title: "What was before, and consent",
    says: "Both sides, as far back as they know.",
  },
] as const;

export type PartName = (typeof PARTS)[number]["part"];

// A squad is asked two questions; whoever says yes is asked the rest.
export const SQUAD = {
  title: "Two questions",
  says: "A yes opens the whole story.",
};
