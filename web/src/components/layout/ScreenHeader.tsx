import { Link } from "react-router";
import type { Screen } from "../../api/screens";
import { athleteTo } from "../../state/domain/addresses";
import { ageOn, dayWords, purposeName } from "../../state/domain/wording";

/** Whose screen it is. The name stays whole longest: facts shorten first. */
export function ScreenHeader({ screen }: { screen: Screen }) {
  const { athlete, record } = screen;
  const age = ageOn(athlete.birth_date, record.date);
  const facts = [
    athlete.ref,
    age,
    athlete.sport,
    purposeName(record.purpose),
    dayWords(record.date),
  ];
  return (
    <>
      <Link className="whose" to={athleteTo(athlete.id)}>
        {athlete.name}
      </Link>
      <span className="muted facts">
        {facts.filter((part) => part !== null && part !== "").join(" · ")}
      </span>
    </>
  );
}
