import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { catalogueQuery } from "../../api/catalogue";
import { AmendedDifferences } from "../../components/marks/AmendedDifferences";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { stepTo } from "../../state/domain/addresses";
import { dayWords } from "../../state/domain/wording";
import { previewQuery, type Schools } from "./queries";

/** What the open screens would read as otherwise: said before anything is kept. */
export function Altered({ schools }: { schools: Schools }) {
  const catalogue = useQuery(catalogueQuery);
  const found = useQuery(previewQuery(schools));
  if (found.error) return <ProblemNote error={found.error} />;
  if (!found.data || !catalogue.data)
    return <p className="muted">Trying it on the open screens.</p>;
  const { altered, looked_at } = found.data;
  const known = catalogue.data;
  if (altered.length === 0) {
    return (
      <p>
        <strong>
          {looked_at === 0
            ? "No screen is open."
            : `None of ${looked_at} open ${looked_at === 1 ? "screen" : "screens"} would read otherwise.`}
        </strong>
      </p>
    );
  }
  return (
    <>
      <p>
        <strong>
          {altered.length} of {looked_at} open {looked_at === 1 ? "screen" : "screens"} would read
          otherwise:
        </strong>
      </p>
      {altered.map((each) => (
        <div key={each.screen}>
          <Link to={stepTo(each.screen, "reading")}>
            {each.athlete.name}, {dayWords(each.date)}
          </Link>
          {each.differences === null ? (
            <p className="muted">cannot be read as it stands</p>
          ) : (
            <AmendedDifferences differences={each.differences} catalogue={known} cause={false} />
          )}
        </div>
      ))}
    </>
  );
}
