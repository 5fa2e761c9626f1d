import type { Catalogue } from "../../api/catalogue";
import type { Day } from "../../api/day";

export interface DayParts {
  day: Day;
  catalogue: Catalogue;
  onChanged: () => void;
}
