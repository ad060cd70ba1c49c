import type { Change, Clash, Json } from '@mailbag/core';
import { withChanges } from '@mailbag/core';
import type { DeskPort, SendFault } from './document-desk';
import { DocumentDesk } from './document-desk';

interface Note {
  title: string;
  body: string;
  tags: string[];
}
const empty: Note = { title: '', body: '', tags: [] };

/** The one truth, which windows send to; it can be away. */
class Truth {
  document: Note = empty;
  version = 1;
  fault: SendFault | null = null;
  /** It takes the changes, and ends before it has said so. */
  endsBeforeAnswer = false;
  stored: { base: Note; local: Note } | null = null;
  readonly desks: DocumentDesk<Note>[] = [];

  desk(): DocumentDesk<Note> {
    const port: DeskPort<Note> = {
      send: async (changes: Change[]): Promise<{ version: number; document: Note; clashes: Clash[] }> => {
        await Promise.resolve();
        if (this.fault) throw this.fault;
        const { document, clashes } = withChanges(this.document as unknown as Json, changes);
        this.document = document as unknown as Note;
        this.version++;
        if (this.endsBeforeAnswer) throw { kind: 'away', why: 'The server does not answer.' } satisfies SendFault;
        return { version: this.version, document: structuredClone(this.document), clashes };
      },
      faultOf: (fault) => fault as SendFault,
      isWhole: () => false,
      keep: (unsaved) => void (this.stored = unsaved),
    };
    const desk = new DocumentDesk<Note>(structuredClone(this.document), this.version, port);
    this.desks.push(desk);
    return desk;
  }
  /** What a live event brings about. */
  tellAll(): void {
    for (const desk of this.desks) desk.seen(this.version, structuredClone(this.document));
  }
}
const type = (desk: DocumentDesk<Note>, text: string, where = 'body'): void => {
  for (let end = 1; end <= text.length; end++) desk.change((note) => ({ ...note, [where]: text.slice(0, end) }), where);
};

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('two windows that change different things keep both, one that changes the same is told both values', async () => {
  const truth = new Truth();
  const [one, two] = [truth.desk(), truth.desk()];
  type(one, 'Renewals', 'title');
  type(two, 'Dear tenant');
  await one.settle();
  await two.settle();
  truth.tellAll();
  expect([one, two].map((desk) => desk.shown().document)).toEqual([truth.document, truth.document]);
  expect(truth.document).toMatchObject({ title: 'Renewals', body: 'Dear tenant' });

  one.change((note) => ({ ...note, title: 'Mine' }), 'title');
  await one.settle();
  two.change((note) => ({ ...note, title: 'Yours' }), 'title');
  await two.settle();
  expect(two.shown()).toMatchObject({ document: { title: 'Mine' }, clashes: [{ place: ['title'], mine: 'Yours', theirs: 'Mine' }] });
  two.settleClash(two.shown().clashes[0]!, true);
  await two.settle();
  expect(truth.document.title).toBe('Yours');
  expect(two.shown().clashes).toEqual([]);
});

describe('a server that took a change and ended before it said so', () => {
  async function typedOn(): Promise<{ truth: Truth; desk: DocumentDesk<Note> }> {
    const truth = new Truth();
    const desk = truth.desk();
    truth.endsBeforeAnswer = true;
    type(desk, 'Dear', 'body');
    await desk.settle();
    truth.endsBeforeAnswer = false;
    desk.change((note) => ({ ...note, body: 'Dear tenant' }), 'body');
    return { truth, desk };
  }

  test('is no other person: what was typed since then stands, whether it is sent first', async () => {
    const { truth, desk } = await typedOn();
    await desk.settle();
    expect([truth.document.body, desk.shown().document.body, desk.shown().clashes]).toEqual(['Dear tenant', 'Dear tenant', []]);
  });

  test('or the version with it is seen first', async () => {
    const { truth, desk } = await typedOn();
    truth.tellAll();
    expect([desk.shown().document.body, desk.shown().clashes]).toEqual(['Dear tenant', []]);
    await desk.settle();
    expect([truth.document.body, desk.shown().clashes]).toEqual(['Dear tenant', []]);
  });

  test('and what somebody else wrote meanwhile is still told', async () => {
    const { truth, desk } = await typedOn();
    truth.document = { ...truth.document, body: 'Hello' };
    truth.version++;
    await desk.settle();
    expect(desk.shown()).toMatchObject({ document: { body: 'Hello' }, clashes: [{ mine: 'Dear tenant', theirs: 'Hello' }] });
  });
});

test('what was typed while the server was away is kept, and sent when it is back', async () => {
  const truth = new Truth();
  const desk = truth.desk();
  truth.fault = { kind: 'away', why: 'The server does not answer.' };
  type(desk, 'Typed meanwhile');
  await desk.settle();
  expect(desk.shown()).toMatchObject({ saving: { state: 'away' }, document: { body: 'Typed meanwhile' } });
  expect(truth.stored).toMatchObject({ local: { body: 'Typed meanwhile' } });
  truth.fault = null;
  await jest.advanceTimersByTimeAsync(20_000);
  expect(truth.document.body).toBe('Typed meanwhile');
  expect(desk.shown().saving).toEqual({ state: 'saved' });
  expect(truth.stored).toBeNull();
});

test('a session that is over keeps it until somebody has signed in, and a refusal until it is put right', async () => {
  const truth = new Truth();
  const desk = truth.desk();
  truth.fault = { kind: 'signed-out', why: '' };
  type(desk, 'Kept');
  await desk.settle();
  expect(desk.shown().saving.state).toBe('signed-out');
  truth.fault = { kind: 'refused', why: 'A mailing needs a name.' };
  desk.resume();
  await jest.advanceTimersByTimeAsync(10);
  expect(desk.shown().saving).toEqual({ state: 'failed', why: 'A mailing needs a name.' });
  truth.fault = null;
  desk.change((note) => ({ ...note, title: 'T' }), 'title');
  await desk.settle();
  expect(truth.document).toMatchObject({ body: 'Kept', title: 'T' });
});

test('what a window left behind is taken up by the next one', async () => {
  const truth = new Truth();
  const first = truth.desk();
  truth.fault = { kind: 'away', why: '' };
  type(first, 'Before the crash');
  await first.settle();
  const left = truth.stored!;
  truth.fault = null;
  truth.document = { ...empty, title: 'Theirs' };
  truth.version = 5;
  const next = truth.desk();
  next.restore(left);
  await next.settle();
  expect(truth.document).toEqual({ title: 'Theirs', body: 'Before the crash', tags: [] });
});

test('undo goes by words and pauses, belongs to its part of the screen, and leaves what others did', async () => {
  const truth = new Truth();
  const desk = truth.desk();
  type(desk, 'Dear tenant');
  desk.change((note) => ({ ...note, tags: ['a'] }), 'tags');
  await desk.settle();
  truth.document = { ...truth.document, title: 'Theirs' };
  truth.version++;
  truth.tellAll();
  desk.undo('body');
  expect(desk.shown().document).toEqual({ title: 'Theirs', body: 'Dear ', tags: ['a'] });
  desk.undo('body');
  expect(desk.shown().document.body).toBe('');
  expect(desk.canUndo('body')).toBe(false);
  expect(desk.canUndo('tags')).toBe(true);
  desk.redo('body');
  expect(desk.shown().document).toEqual({ title: 'Theirs', body: 'Dear ', tags: ['a'] });
  jest.setSystemTime(Date.now() + 5000);
  desk.change((note) => ({ ...note, body: 'Dear x' }), 'body');
  // Where other things are taken back too, whoever asks learns which was the last.
  expect([desk.lastStepAt('body'), desk.lastStepAt('nowhere')]).toEqual([Date.now(), 0]);
  desk.undo('body');
  expect(desk.shown().document.body).toBe('Dear ');
  expect(desk.lastStepAt('body')).toBe(Date.now() - 5000);
});

test('random edits in two windows against one truth, with the server away now and then: both end with the truth, and nothing is lost', async () => {
  // Lehmer (Park and Miller, 1988), so that a failure can be seen again.
  let state = 20_271;
  const next = (below: number): number => (state = (state * 48_271) % 2_147_483_647) % below;
  const truth = new Truth();
  const windows = [truth.desk(), truth.desk()];
  const made = new Set<string>();
  for (let count = 0; count < 200; count++) {
    const window = next(2);
    const desk = windows[window]!;
    if (next(5) < 4) {
      const tag = `${window}-${count}`;
      made.add(tag);
      desk.change((note) => ({ ...note, tags: [...note.tags, tag] }), 'tags');
    } else desk.change((note) => ({ ...note, [window === 0 ? 'title' : 'body']: `${count}` }), 'text');
    truth.fault = next(10) === 0 ? { kind: 'away', why: '' } : null;
    if (next(3) === 0) await desk.settle();
    if (next(4) === 0) truth.tellAll();
  }
  truth.fault = null;
  for (const desk of windows) await desk.settle();
  truth.tellAll();
  expect(windows.map((desk) => desk.shown().document)).toEqual([truth.document, truth.document]);
  expect(new Set(truth.document.tags)).toEqual(made);
  expect(windows.flatMap((desk) => desk.shown().clashes)).toEqual([]);
});
