import type { Athlete } from "../../api/athletes";
import type { Catalogue } from "../../api/catalogue";
import type { Course } from "../../api/course";

export interface AthleteParts {
  athlete: Athlete;
  course: Course;
  catalogue: Catalogue;
  today: string;
  onChanged: () => void;
}
