// Sends one owner's outbox, again and again until it is empty. One sender at a time on a device.

import { clockFor } from "../../api/device_clock";
import { type Fault, Problem } from "../../api/problem";
import type { Answer, Written } from "../../api/screens";
import type { Outbox } from "./outbox";
import { createStore } from "./store";

/** `another-user`: somebody else is signed in now, so what waits stays where it is. */
export type SendState = "idle" | "sending" | "waiting" | "signed-out" | "another-user";

export interface Refusal {
  screen: string;
  answer: Answer;
  problem: string;
}

export interface Delivered extends Written {
  screen: string;
  answers: Answer[];
}

type Write = (screen: string, answers: Answer[], device: string, clock: string) => Promise<Written>;

const MOST_A_CALL = 100;
const PAUSES_MS = [500, 1000, 2000, 4000, 8000];

export class Sender {
  readonly state = createStore<SendState>(() => "idle");
  /** By how many seconds this device's clock is behind the server's, where that is worth saying. */
  readonly skew = createStore<number | null>(() => null);
  private readonly delivered = new Set<(what: Delivered) => void>();
  private readonly refused = new Set<(what: Refusal) => void>();
  private readonly emptied = new Set<() => void>();
  private running = false;
  private again = false;
  private stopped = false;
  private tries = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly outbox: Outbox,
    private readonly device: string,
    private readonly write: Write,
    private readonly alone: <T>(work: () => Promise<T>) => Promise<T> = (work) => work(),
  ) {}

  onDelivered(listener: (what: Delivered) => void): () => void {
    this.delivered.add(listener);
    return () => this.delivered.delete(listener);
  }

  onRefused(listener: (what: Refusal) => void): () => void {
    this.refused.add(listener);
    return () => this.refused.delete(listener);
  }

  /** Told whenever nothing is left to send, whoever on this device sent it. */
  onEmpty(listener: () => void): () => void {
    this.emptied.add(listener);
    return () => this.emptied.delete(listener);
  }

  /** Begin, or begin again after signing in. While it runs it looks once more before it rests. */
  wake(): void {
    if (this.stopped) return;
    clearTimeout(this.timer);
    this.again = true;
    if (!this.running) void this.run();
  }

  /** For good: its owner has left. What was on its way arrives, nothing more is sent. */
  stop(): void {
    this.stopped = true;
    clearTimeout(this.timer);
  }

  private async run(): Promise<void> {
    this.running = true;
    try {
      while (this.again && !this.stopped) {
        this.again = false;
        await this.alone(() => this.sendAll());
      }
    } finally {
      this.running = false;
    }
  }

  private async sendAll(): Promise<void> {
    while (!this.stopped) {
      const batch = this.outbox.batch(MOST_A_CALL);
      if (!batch) {
        this.tries = 0;
        this.state.setState("idle");
        for (const tell of this.emptied) tell();
        return;
      }
      this.state.setState("sending");
      try {
        const { screen, answers } = batch;
        const written = await this.write(screen, answers, this.device, clockFor(answers));
        this.skew.setState(written.skew_seconds);
        this.outbox.drop(batch.answers.map((answer) => answer.id));
        for (const tell of this.delivered) tell({ ...batch, ...written });
        this.tries = 0;
      } catch (error) {
        if (!this.recover(batch.screen, batch.answers, error)) return;
      }
    }
  }

  /** True to go on at once, false to wait. */
  private recover(screen: string, answers: Answer[], error: unknown): boolean {
    const problem = error instanceof Problem ? error : new Problem(0, "no-server", String(error));
    if (problem.code === "not-signed-in" || problem.code === "another-user") {
      this.state.setState(problem.code === "another-user" ? "another-user" : "signed-out");
      return false;
    }
    if (problem.passing || problem.code === "wrong-token") {
      this.state.setState("waiting");
      const pause = PAUSES_MS[Math.min(this.tries, PAUSES_MS.length - 1)];
      this.tries += 1;
      this.timer = setTimeout(() => this.wake(), pause);
      return false;
    }
    this.handBack(screen, answers, problem);
    return true;
  }

  /** The server will never take these as they are: back to the hand that typed them. */
  private handBack(screen: string, answers: Answer[], problem: Problem): void {
    const named = problem.faults.map(placeOf).filter((found) => found !== null);
    const bad = named.length > 0 ? named : answers.map((_, index) => ({ index, problem: "" }));
    for (const { index, problem: says } of bad) {
      const answer = answers[index];
      if (!answer) continue;
      this.outbox.drop([answer.id]);
      const what = { screen, answer, problem: says || problem.message };
      for (const tell of this.refused) tell(what);
    }
  }
}

function placeOf(fault: Fault): { index: number; problem: string } | null {
  const found = /^answers\[(\d+)\]/.exec(fault.path);
  return found ? { index: Number(found[1]), problem: fault.problem } : null;
}
