// One screen at the bench: what stands, what waits, what is being typed, what it reads as.
import { Problem } from "../../api/problem";
import type { Answer, Changes, Screen } from "../../api/screens";
import type { Draft, Drafts } from "../device/drafts";
import type { Outbox } from "../device/outbox";
import type { Delivered, Refusal, Sender } from "../device/sender";
import {
  fieldsOf,
  isValueField,
  type Json,
  type KeyMeasures,
  newAnswer,
  type Place,
  placeKey,
  placeOf,
  placeOfAnswer,
  withChanges,
  withFacts,
} from "../domain/fields";
import type { LengthUnit } from "../domain/length";
import { type DialSetting, dialOf, parseTrials, textOf } from "../domain/parse";
import { draftFaults, type QuickFault, withFault } from "./bench_faults";
import {
  type Change,
  emptyBench,
  readableDrafts,
  sameJson,
  settledElsewhere,
  waitingIn,
} from "./bench_state";
import { type AskPreview, LiveReading } from "./live_reading";

export type { BenchState, Change } from "./bench_state";

/** As many answers as the server reads beside what stands. */
const MOST_ASKED = 200;

const NO_DRAFT: Draft = { text: "", dial: null, problem: null };

/** How often others' answers are asked for again while our own keep arriving. */
const MOST_TURNS = 5;

export class Bench {
  readonly state = emptyBench();
  private readonly undoable: Change[][] = [];
  private readonly live: LiveReading;
  private readonly left: Map<string, Draft>;
  private readonly stops: (() => void)[];
  /** How often something of this device has arrived. */
  private deliveries = 0;

  constructor(
    private readonly screen: string,
    opened: Screen,
    private readonly drafts: Drafts,
    private readonly outbox: Outbox,
    private readonly sender: Sender,
    ask: AskPreview,
    keys: KeyMeasures = new Map(),
    private readonly quickFault: QuickFault = () => null,
    private readonly now: () => string = () => new Date().toISOString(),
  ) {
    this.live = new LiveReading(ask);
    this.state.setState({
      fields: withFacts(fieldsOf(opened.record, keys), opened.facts),
      revision: opened.revision,
      signed: opened.state === "signed",
      late: opened.late.length,
      clashes: opened.clashes,
      waiting: waitingIn(this.outbox, this.screen),
      drafts: drafts.all(),
    });
    this.stops = [
      sender.onDelivered((what) => this.delivered(what)),
      sender.onRefused((what) => this.refused(what)),
      sender.onEmpty(() => this.settleElsewhere()),
    ];
    this.left = new Map(this.state.getState().drafts);
    void this.read();
  }

  close(): void {
    for (const stop of this.stops) stop();
    this.live.stop();
  }

  /** What stands in a field: what waits to be sent comes before what the server has. */
  value(place: Place): Json {
    const { waiting, fields } = this.state.getState();
    const key = placeKey(place);
    return waiting.has(key) ? waiting.get(key) : (fields.get(key)?.value ?? null);
  }

  hasDraft(place: Place): boolean {
    return this.state.getState().drafts.has(placeKey(place));
  }

  /** What is being typed, or what stands as it could be typed, in the unit that is asked for. */
  draft(place: Place, unit: LengthUnit = "mm"): Draft {
    const typed = this.state.getState().drafts.get(placeKey(place));
    if (typed) return typed;
    const value = this.value(place);
    return { ...NO_DRAFT, text: textOf(value, unit), dial: dialOf(value), unit };
  }

  problem(place: Place): string | null {
    const { faults, drafts } = this.state.getState();
    const key = placeKey(place);
    const found = faults.get(key) ?? drafts.get(key)?.problem ?? null;
    return found?.replace(/-(?=\d)/g, "−") ?? null;
  }

  /** Every key press: kept on the device, and read at once. */
  type(place: Place, text: string, dial: DialSetting | null, unit: LengthUnit = "mm"): void {
    const key = placeKey(place);
    this.keepDraft(key, { text, dial, unit, problem: null });
    const parsed = parseTrials(text, dial, unit);
    let problem = parsed.kind === "fault" ? parsed.problem : null;
    if (parsed.kind === "value") problem = this.quickFault(place, parsed.value);
    this.state.setState((state) => ({ faults: withFault(state.faults, key, problem) }));
    void this.read();
  }

  /** Takes a draft as the value. False where it cannot be taken; it stays as typed. */
  commit(place: Place): boolean {
    const key = placeKey(place);
    const draft = this.state.getState().drafts.get(key);
    if (!draft) return true;
    const value = this.settled(place, draft);
    if (value === undefined) return false;
    this.forget(key);
    if (!draft.written && !sameJson(value, this.value(place))) this.write([{ ...place, value }]);
    return true;
  }

  /** After two seconds' rest: sent, while the text stays as it is under the hand. */
  rest(place: Place): void {
    const key = placeKey(place);
    const draft = this.state.getState().drafts.get(key);
    const value = draft && !draft.written ? this.settled(place, draft) : undefined;
    if (!draft || value === undefined || sameJson(value, this.value(place))) return;
    this.write([{ ...place, value }]);
    this.keepDraft(key, { ...draft, written: true });
  }

  /** Words being written, kept like every other key press. */
  keepText(place: Place, text: string, written = false): void {
    this.keepDraft(placeKey(place), { text, dial: null, problem: null, written });
  }

  clearText(place: Place): void {
    this.forget(placeKey(place));
  }

  textDraft(place: Place): string | null {
    return this.state.getState().drafts.get(placeKey(place))?.text ?? null;
  }

  /** Something that a reading needs was changed elsewhere: a gate was opened. */
  readAgain(): void {
    void this.read();
  }

  /** Gives up a draft that cannot be taken. */
  discard(key: string): void {
    this.forget(key);
    void this.read();
  }

  /** A draft's value; undefined where it cannot be taken. */
  private settled(place: Place, draft: Draft): Json | undefined {
    if (this.problem(place)) return undefined;
    const parsed = parseTrials(draft.text, draft.dial, draft.unit);
    if (parsed.kind === "fault") return undefined;
    return parsed.kind === "empty" ? null : parsed.value;
  }

  private keepDraft(key: string, draft: Draft): void {
    this.drafts.put(key, draft);
    this.state.setState((state) => ({ drafts: new Map(state.drafts).set(key, draft) }));
  }

  /** What a reload or a closed lid left unsaved is taken once the server has judged it. */
  private takeUp(): void {
    const left = [...this.left];
    this.left.clear();
    for (const [key, draft] of left) {
      const untouched = this.state.getState().drafts.get(key) === draft;
      const place = placeOf(key);
      if (untouched && isValueField(place.field)) this.commit(place);
    }
  }

  /** One action of the user, one or more fields: kept, undoable, sent. */
  write(changes: Change[], undoable = true): void {
    if (undoable) {
      const before = changes.map((change) => ({ ...change, value: this.value(change) }));
      this.undoable.push(before);
    }
    const answers = changes.map((change) => this.answer(change));
    this.outbox.put(this.screen, answers);
    for (const change of changes) this.forget(placeKey(change));
    this.state.setState((state) => ({
      waiting: waitingIn(this.outbox, this.screen),
      canUndo: this.undoable.length > 0,
      answered: state.answered + 1,
    }));
    this.sender.wake();
    void this.read();
  }

  /** Puts back what stood before the last action, wherever that was. */
  undo(): Change[] | null {
    const before = this.undoable.pop();
    if (!before) return null;
    this.write(before, false);
    return before;
  }

  /** A value that was entered on the wrong side. Where the other side holds one, they change places. */
  moveAcross(here: Place): void {
    const there: Place = { ...here, side: here.side === "left" ? "right" : "left" };
    this.commit(here);
    this.commit(there);
    this.write([
      { ...here, value: this.value(there) },
      { ...there, value: this.value(here) },
    ]);
  }

  /**
   * Asks what others wrote. What was asked before an answer of our own arrived knows an older value of its
   * field: it is left, and asked again. Null where that went on too long; the next turn asks anew.
   */
  async follow(ask: (revision: number) => Promise<Changes>): Promise<Changes | null> {
    for (let turn = 0; turn < MOST_TURNS; turn++) {
      const before = this.deliveries;
      const changes = await ask(this.state.getState().revision);
      if (before !== this.deliveries) continue;
      this.apply(changes);
      return changes;
    }
    return null;
  }

  /** What others wrote. Drafts stay as they are. */
  apply(changes: Changes): void {
    if (changes.revision <= this.state.getState().revision && changes.state === "open") return;
    this.state.setState((state) => ({
      fields: withChanges(state.fields, changes.answers),
      revision: Math.max(changes.revision, state.revision),
      signed: changes.state === "signed",
      clashes: changes.clashes,
    }));
    void this.read();
  }

  private answer(change: Change): Answer {
    return newAnswer(change, change.value, this.now());
  }

  private forget(key: string): void {
    this.drafts.drop(key);
    this.state.setState((state) => {
      const drafts = new Map(state.drafts);
      drafts.delete(key);
      return { drafts, faults: withFault(state.faults, key, null) };
    });
  }

  private delivered(what: Delivered): void {
    if (what.screen !== this.screen) return;
    this.deliveries += 1;
    const before = this.state.getState().waiting.size;
    const late = new Set(what.late);
    // What was seen later stands there already: this one lies beside it.
    const beside = new Set(what.beside);
    const written = what.answers
      .filter((answer) => !late.has(answer.id) && !beside.has(answer.id))
      .map((answer) => ({ ...answer, ...placeOfAnswer(answer), by: null, at: answer.at ?? null }));
    this.state.setState((state) => ({
      // The revision stays: what others wrote in between still has to be fetched.
      fields: withChanges(state.fields, written as Changes["answers"]),
      waiting: waitingIn(this.outbox, this.screen),
      late: state.late + late.size,
      signed: state.signed || late.size > 0,
    }));
    if (before > MOST_ASKED) void this.read();
  }

  /** What another tab of this device sent, or was refused, no longer waits here. */
  private settleElsewhere(): void {
    const settled = settledElsewhere(
      this.state.getState(),
      waitingIn(this.outbox, this.screen),
      this.drafts.all(),
    );
    if (!settled) return;
    this.deliveries += 1;
    this.state.setState(settled);
  }

  private refused(what: Refusal): void {
    if (what.screen !== this.screen) return;
    // The device has already made drafts of what was handed back.
    this.state.setState({
      waiting: waitingIn(this.outbox, this.screen),
      drafts: this.drafts.all(),
    });
  }

  /** Asks what it reads as with everything typed so far. */
  private async read(): Promise<void> {
    this.state.setState({ readingCurrent: false });
    const drafts = readableDrafts(this.state.getState().drafts);
    const waiting = this.outbox.list(this.screen).map(({ answer }) => answer);
    // More than one question holds waits for the server: it is read once that has them.
    if (waiting.length + drafts.length > MOST_ASKED) {
      this.live.stop();
      return;
    }
    const typed = drafts.map(({ change }) => this.answer(change));
    const found = await this.live.ask([...waiting, ...typed]);
    // Away or overtaken: the last reading stays, marked as older than what is typed.
    if (!found) return;
    if (found instanceof Problem) {
      // Who may not ask is told so by the entry.
      if (found.status !== 401 && found.status !== 403) this.state.setState({ unreadable: found });
      return;
    }
    this.state.setState((state) => ({
      reading: found.reading,
      readingCurrent: true,
      unreadable: null,
      faults: draftFaults(state.faults, drafts, found, waiting.length),
    }));
    this.takeUp();
  }
}
