import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import { makeCalendar, readCalendar, revokeCalendar } from "../../api/exports";
import { useSession } from "../../components/base/session";
import { TextField } from "../../components/controls/TextField";
import { Named } from "../../components/marks/Named";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { momentWords } from "../../state/domain/audit";

/** Rechecks and referrals in one's own calendar, at an address that only its owner knows. */
export function CalendarPart() {
  const session = useSession();
  const feed = useQuery({ queryKey: ["calendar"], queryFn: readCalendar });
  const [named, setNamed] = useState(false);
  const done = () => void feed.refetch();
  const make = useMutation({
    mutationFn: () => makeCalendar(crypto.randomUUID(), named),
    onSuccess: done,
  });
  const revoke = useMutation({
    mutationFn: revokeCalendar,
    onSuccess: () => {
      make.reset();
      done();
    },
  });
  const address = make.data ? `${window.location.origin}${make.data.path}` : null;
  const state = feed.data;
  return (
    <section aria-label="Calendar" style={{ maxWidth: "34rem" }}>
      <h2>Calendar</h2>
      <p>
        Rechecks, referrals and second looks, as a calendar that your own calendar program asks for
        again and again. A date that moves moves there too, and what is done goes away.
      </p>
      <p className="muted">
        Whoever has the address reads it, without signing in. It is shown once, and can be taken
        back at any time. Without names, neither a name nor a finding stands in it.
      </p>
      {state?.on ? (
        <p role="status">
          There is an address, {state.named ? "with names" : "without names"}
          {state.since ? `, since ${momentWords(state.since, session.time_zone)}` : ""}.{" "}
          {state.read_at
            ? `A calendar last asked ${momentWords(state.read_at, session.time_zone)}.`
            : "No calendar has asked yet."}
        </p>
      ) : null}
      <Named named={named} onNamed={setNamed} says="With names and findings" />
      <div className="d-flex gap-2 mt-3 mb-3">
        <Button disabled={make.isPending} onClick={() => make.mutate()}>
          {state?.on ? "Make another address" : "Make an address"}
        </Button>
        {state?.on ? (
          <Button variant="quiet" disabled={revoke.isPending} onClick={() => revoke.mutate()}>
            Take it back
          </Button>
        ) : null}
      </div>
      {state?.on && !address ? (
        <p className="muted small">Another address ends the one before.</p>
      ) : null}
      {address ? <Address address={address} /> : null}
      <ProblemNote error={make.error ?? revoke.error ?? feed.error} />
    </section>
  );
}

function Address({ address }: { address: string }) {
  const [copied, setCopied] = useState(false);
  return (
    <>
      <TextField label="Your address, shown once" value={address} readOnly />
      <Button
        variant="quiet"
        onClick={() => void navigator.clipboard.writeText(address).then(() => setCopied(true))}
      >
        Copy
      </Button>{" "}
      {copied ? <span role="status">copied</span> : null}
    </>
  );
}
