import { Link } from "react-router";
import type { Screen } from "../../api/screens";
import { useServices } from "../../components/session";
import { useStore } from "../../components/useStore";
import type { Bench } from "../../state/bench";
import { placeOf } from "../../state/fields";
import { ageOn, dayWords, purposeName, readable } from "../../state/wording";

export function BenchHeader({ screen }: { screen: Screen }) {
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
      <strong>{athlete.name}</strong>{" "}
      <span className="muted">
        {facts.filter((part) => part !== null && part !== "").join(" · ")}
      </span>
    </>
  );
}

/** Saved, waiting or failed, quietly. */
export function SaveMark({ bench }: { bench: Bench }) {
  const { sender } = useServices();
  const sending = useStore(sender.state);
  const state = useStore(bench.state);
  const waiting = state.waiting.size;
  const unwritten = [...state.drafts.values()].filter((draft) => !draft.written).length;
  const refused = [...state.drafts].filter(([, draft]) => draft.problem).map(([key]) => key);
  const [faulty] = [...state.faults.keys(), ...refused];
  let says = "all saved";
  if (sending === "signed-out") says = `${waiting} kept here, sign in to send`;
  else if (sending === "waiting") says = `${waiting} kept here, waiting for the server`;
  else if (waiting > 0) says = "saving";
  else if (faulty) says = `not saved: ${faultyName(faulty)}`;
  else if (unwritten > 0) says = "typing";
  return (
    <span role="status" className={faulty ? "fault" : "muted"}>
      {says}
    </span>
  );
}

function faultyName(key: string): string {
  const { field, side } = placeOf(key);
  return [readable(field.replace("values.", "")), side].filter(Boolean).join(", ");
}

export function ReadingLink({ screen }: { screen: string }) {
  return (
    <Link className="place" to={`/screens/${screen}/reading`}>
      Reading
    </Link>
  );
}
