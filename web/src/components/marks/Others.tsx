import type { Catalogue } from "../../api/catalogue";
import { initials, others, othersAt, whereWords } from "../../state/screen/others";
import { useStore } from "../base/useStore";

interface Props {
  screen: string;
  catalogue: Catalogue;
}

/** Who else is at this screen, and where. */
export function Others({ screen, catalogue }: Props) {
  const here = othersAt(useStore(others), screen);
  if (here.length === 0) return null;
  return (
    <ul className="others" aria-label="Also here">
      {here.map((other) => (
        <li key={other.device} title={whereWords(other, catalogue)}>
          <span className="initials" aria-hidden="true">
            {initials(other.name)}
          </span>
          <span className="others-where">{whereWords(other, catalogue)}</span>
        </li>
      ))}
    </ul>
  );
}
