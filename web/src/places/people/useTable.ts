import { useMutation } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import type { Step } from "../../api/steps";
import { checkTable, importTable, type Mapped } from "../../api/values";

/** Trying and taking a table: how far it is, and stopping it. Leaving stops it too. */
export function useTable(body: Mapped, onTaken: () => void) {
  const [step, setStep] = useState<Step | null>(null);
  const going = useRef<AbortController | null>(null);
  const along = () => {
    going.current?.abort();
    going.current = new AbortController();
    return { onStep: setStep, signal: going.current.signal };
  };
  const settled = { onSettled: () => setStep(null) };
  const look = useMutation({ mutationFn: () => checkTable(body, along()), ...settled });
  const take = useMutation({
    mutationFn: () => importTable(body, along()),
    onSuccess: onTaken,
    ...settled,
  });
  const stop = () => going.current?.abort();
  useEffect(() => () => going.current?.abort(), []);
  return { look, take, step, stop, busy: look.isPending || take.isPending };
}

const WORDS: Record<Step["step"], string> = {
  reading: "Reading the table",
  checking: "Checking",
  writing: "Writing",
  done: "Done",
  refused: "Refused",
};

export const stepWords = ({ step, done, of }: Step): string =>
  of > 0 ? `${WORDS[step]}: ${done} of ${of} screens` : `${WORDS[step]}…`;

/** Somebody stopped it: that is no fault to be told. */
export const wasStopped = (error: unknown): boolean =>
  error instanceof DOMException && error.name === "AbortError";
