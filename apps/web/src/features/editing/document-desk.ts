import type { Change, Clash, Json } from '@mailbag/core';
import { changesBetween, inverseOf, same, valueAt, withChanges } from '@mailbag/core';

/** How far a document is saved. `away`: the server does not answer; it is tried again by itself. `signed-out`: it goes on after signing in. */
export type Saving = { state: 'saved' | 'saving' | 'waiting' | 'signed-out' } | { state: 'away' | 'failed'; why: string };

/** Why something was not sent: see `Saving`. */
export type SendFault = { kind: 'away' | 'signed-out' | 'refused'; why: string };

/** What a desk needs of its surroundings. */
export interface DeskPort<Document> {
  /** Sends changes. @throws whatever `faultOf` understands */
  send(changes: Change[]): Promise<{ version: number; document: Document; clashes: Clash[] }>;
  faultOf(error: unknown): SendFault;
  isWhole(place: readonly string[]): boolean;
  /** Keeps what is not on the server yet in the browser; null: nothing is. */
  keep(unsaved: { base: Document; local: Document } | null): void;
}

/** One step of undo: changes that belong together, and the place on the screen where they were made. */
interface Step {
  changes: Change[];
  where: string;
  at: number;
}

/** What a screen shows of a desk. A new object whenever something is different. */
export interface DeskView<Document> {
  document: Document;
  saving: Saving;
  clashes: readonly Clash[];
}

/** Milliseconds: after the last change until it is sent; a pause that ends a step of undo; between tries when the server is away. */
const CALM = 350;
const PAUSE = 1000;
const [SOONEST, LATEST] = [1000, 15_000];
const MOST_STEPS = 200;
/** Documents that were sent and not answered, the latest ones. */
const MOST_UNANSWERED = 5;

/** The document with what was wanted here where it clashed. */
const withMine = <Document>(document: Document, clashes: readonly Clash[]): Document =>
  clashes.length === 0
    ? document
    : (withChanges(
        document as Json,
        clashes.map(({ place, theirs, mine }) => ({ kind: 'set' as const, place, was: theirs, is: mine })),
      ).document as Document);

/**
 * A document while it is edited in one window. It saves itself by small changes, so that several windows and people keep all their work: what is not saved yet
 * lies over whatever version the server has. Every step can be undone and done again, also after leaving the screen.
 */
export class DocumentDesk<Document> {
  private view: DeskView<Document>;
  private readonly listeners = new Set<() => void>();
  private past: Step[] = [];
  private future: Step[] = [];
  private sending: Promise<void> | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private tries = 0;
  /** What was sent and never answered: the server may have it all the same, and then it is no other person's. */
  private unanswered: Document[] = [];

  constructor(
    private base: Document,
    private version: number,
    private readonly port: DeskPort<Document>,
  ) {
    this.view = { document: base, saving: { state: 'saved' }, clashes: [] };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };
  readonly shown = (): DeskView<Document> => this.view;

  /** Whether something is not on the server yet. */
  get isUnsaved(): boolean {
    return !same(this.base as Json, this.view.document as Json);
  }

  private show(more: Partial<DeskView<Document>>): void {
    this.view = { ...this.view, ...more };
    for (const listener of this.listeners) listener();
  }

  private between(was: Document, is: Document): Change[] {
    return changesBetween(was as Json, is as Json, (place) => this.port.isWhole(place));
  }

  /** @param where the part of the screen in which it is made, to which its undo belongs */
  change(update: (document: Document) => Document, where: string): void {
    const { document } = this.view;
    const next = update(document);
    const changes = next === document ? [] : this.between(document, next);
    if (changes.length === 0) return;
    const now = Date.now();
    const last = this.past.at(-1);
    const joined = last && last.where === where && now - last.at < PAUSE ? joinedTyping(last.changes, changes) : null;
    if (joined && last) this.past = [...this.past.slice(0, -1), { changes: joined, where, at: now }];
    else this.past = [...this.past.slice(1 - MOST_STEPS), { changes, where, at: now }];
    this.future = this.future.filter((step) => step.where !== where);
    this.put(next);
  }

  private put(document: Document): void {
    this.show({ document });
    this.keep();
    this.schedule(CALM);
  }

  private keep(): void {
    this.port.keep(this.isUnsaved ? { base: this.base, local: this.view.document } : null);
  }

  /** @returns whether there is a step of that part of the screen to take back, or to do again */
  canUndo = (where: string): boolean => this.past.some((step) => step.where === where);
  canRedo = (where: string): boolean => this.future.some((step) => step.where === where);

  /** When the step was made that is taken back next in that part, milliseconds since 1970; 0: there is none. */
  lastStepAt = (where: string): number => this.past.findLast((step) => step.where === where)?.at ?? 0;

  undo(where: string): void {
    const step = this.past.findLast((one) => one.where === where);
    if (!step) return;
    this.past = this.past.filter((one) => one !== step);
    this.future = [step, ...this.future];
    this.make(inverseOf(step.changes));
  }

  redo(where: string): void {
    const step = this.future.find((one) => one.where === where);
    if (!step) return;
    this.future = this.future.filter((one) => one !== step);
    this.past = [...this.past, step];
    this.make(step.changes);
  }

  private make(changes: readonly Change[]): void {
    const { document, clashes } = withChanges(this.view.document as Json, changes);
    this.tell(clashes);
    this.put(document as Document);
  }

  /** Clashes in the order in which they came; of one place only the last. */
  private tell(clashes: readonly Clash[]): void {
    if (clashes.length === 0) return;
    const places = new Set(clashes.map(({ place }) => place.join('\n')));
    this.show({ clashes: [...this.view.clashes.filter(({ place }) => !places.has(place.join('\n'))), ...clashes] });
  }

  /** Ends a clash. @param mine whether it becomes what was wanted here, after all */
  settleClash(clash: Clash, mine: boolean): void {
    this.show({ clashes: this.view.clashes.filter((one) => one !== clash) });
    if (!mine) return;
    const { document } = withChanges(this.view.document as Json, [{ kind: 'set', place: clash.place, was: clash.theirs, is: clash.mine }]);
    this.past = [...this.past, { changes: this.between(this.view.document, document as Document), where: '', at: 0 }];
    this.put(document as Document);
  }

  /** The server has another version, which somebody else made. */
  seen(version: number, document: Document): void {
    if (version <= this.version || this.sending) return;
    this.lay(document, version, this.base);
  }

  /** What was kept in the browser by a window that ended before the server had it. */
  restore({ base, local }: { base: Document; local: Document }): void {
    const changes = this.between(base, local);
    if (changes.length === 0) return;
    this.past = [...this.past, { changes, where: '', at: 0 }];
    this.make(changes);
  }

  /** Lays what is here since `from` over a version of the server's. @param start that version with what clashed only with oneself */
  private lay(onto: Document, version: number, from: Document, start = onto): void {
    const { document } = this.view;
    this.base = onto;
    this.version = version;
    // The usual case: nobody else did anything, and what is shown stays the very same object.
    if (same(onto as Json, document as Json)) return this.keep();
    const { document: merged, clashes } = withChanges(start as Json, this.between(from, document));
    const { own, others } = this.parted(clashes);
    this.show({ document: withMine(merged as Document, own) });
    this.tell(others);
    this.keep();
  }

  /** Clashes with what was sent from here and not answered, and those with others. */
  private parted(clashes: readonly Clash[]): { own: Clash[]; others: Clash[] } {
    const isOwn = ({ place, theirs }: Clash): boolean =>
      this.unanswered.some((sent) => same(valueAt(sent as Json, place) ?? null, theirs ?? null));
    return { own: clashes.filter(isOwn), others: clashes.filter((clash) => !isOwn(clash)) };
  }

  private schedule(wait: number): void {
    if (this.view.saving.state === 'saved') this.show({ saving: { state: 'waiting' } });
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.settle(), wait);
  }

  /** Tries again now what could not be sent: the server is back, or somebody has signed in. */
  resume(): void {
    this.tries = 0;
    if (this.isUnsaved) void this.settle();
  }

  /** Sends what is not saved yet; resolves when the server has it, or when it could not be sent. */
  settle(): Promise<void> {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    return (this.sending ??= this.sendAll().finally(() => {
      this.sending = null;
    }));
  }

  private async sendAll(): Promise<void> {
    while (this.isUnsaved) {
      const sent = this.view.document;
      this.show({ saving: { state: 'saving' } });
      try {
        const { version, document, clashes } = await this.port.send(this.between(this.base, sent));
        this.tries = 0;
        const { own, others } = this.parted(clashes);
        this.lay(document, version, sent, withMine(document, own));
        this.tell(others);
        this.unanswered = [];
      } catch (error) {
        const fault = this.port.faultOf(error);
        if (fault.kind === 'away') this.unanswered = [...this.unanswered.slice(1 - MOST_UNANSWERED), sent];
        return this.failed(fault);
      }
    }
    this.show({ saving: { state: 'saved' } });
  }

  private failed({ kind, why }: SendFault): void {
    if (kind === 'signed-out') return this.show({ saving: { state: 'signed-out' } });
    this.show({ saving: { state: kind === 'away' ? 'away' : 'failed', why } });
    // What is refused is sent again with the next change; the server is asked until it answers.
    if (kind === 'away') this.schedule(Math.min(LATEST, SOONEST * 2 ** this.tries++));
  }
}

/** Typing on in the same text is one step, until a word ends; and so is moving the same things on. Null: it is something else. */
function joinedTyping(earlier: readonly Change[], later: readonly Change[]): Change[] | null {
  return joinedMoves(earlier, later) ?? joinedText(earlier, later);
}

const areNumbers = (value: Json | undefined): boolean => Array.isArray(value) && value.every((one) => typeof one === 'number');

/** Places and other rows of numbers that are set again, each where it was. */
function joinedMoves(earlier: readonly Change[], later: readonly Change[]): Change[] | null {
  if (earlier.length !== later.length) return null;
  const joined = earlier.map((before, index): Change | null => {
    const after = later[index]!;
    const isSame = before.kind === 'set' && after.kind === 'set' && before.place.join('\n') === after.place.join('\n');
    return isSame && areNumbers(before.is) && areNumbers(after.is) ? { ...before, is: after.is } : null;
  });
  return joined.every((one) => one !== null) ? joined : null;
}

function joinedText([before, ...noMore]: readonly Change[], [after, ...more]: readonly Change[]): Change[] | null {
  if (before?.kind !== 'set' || after?.kind !== 'set' || noMore.length > 0 || more.length > 0) return null;
  if (before.place.join('\n') !== after.place.join('\n') || typeof before.is !== 'string' || typeof after.is !== 'string') return null;
  const beginsWord = /\s$/.test(before.is) && after.is.length > before.is.length && !/\s$/.test(after.is);
  return beginsWord ? null : [{ ...before, is: after.is }];
}
