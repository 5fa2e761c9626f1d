import Button from "react-bootstrap/Button";
import { useNavigate } from "react-router";
import { stepTo } from "../../state/domain/addresses";
import { factAt, historyLines, nothingHurts, sorePlaces, told } from "../../state/screen/story";
import { LastVisit } from "./LastVisit";
import { Plates, YES_NO } from "./Plates";
import type { PartProps } from "./parts";
import styles from "./story.module.css";

/** Any pain today, anything new since last time: a yes opens the part that asks more. */
export function SquadQuestions(props: PartProps) {
  const { bench, screen, facts } = props;
  const navigate = useNavigate();
  const id = screen.record.id;
  const hurts = sorePlaces(facts).length > 0 ? true : nothingHurts(facts) ? false : undefined;
  const fresh =
    historyLines(facts).length > 0
      ? true
      : factAt(facts, "history.none") === true
        ? false
        : undefined;
  const open = (part: string) => void navigate(stepTo(id, "story", part), { replace: true });
  const noPain = { ...told("complaint.region"), value: "none" };
  const nothingNew = { ...told("history.none"), value: true };
  return (
    <div className={styles.flow}>
      <section aria-label="Two questions">
        <Plates
          label="Any pain today?"
          options={YES_NO}
          value={hurts}
          onPick={(value) => {
            // A place that was told is taken out where it stands, not by a no.
            if (value === true || sorePlaces(facts).length > 0) open("where");
            else bench.write([{ ...noPain, value: value === false ? "none" : null }]);
          }}
        />
        <Plates
          label="Anything new since last time?"
          options={YES_NO}
          value={fresh}
          onPick={(value) => {
            if (value === true) open("before");
            else bench.write([{ ...nothingNew, value: value === false ? true : null }]);
          }}
        />
        {hurts === undefined && fresh === undefined ? (
          <Button
            onClick={() => {
              bench.write([noPain, nothingNew]);
              void navigate(stepTo(id, "bench"));
            }}
          >
            No pain, nothing new: begin
          </Button>
        ) : null}
      </section>
      <LastVisit {...props} about="where" />
    </div>
  );
}
