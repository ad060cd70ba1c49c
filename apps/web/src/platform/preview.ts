import type { Column, FillNote } from '@mailbag/core';
import type { PreviewAnswer, PreviewRequest, PreviewTemplate, PreviewWish, SheetWish } from './preview-worker';

export interface FilledPreview {
  bytes: Uint8Array;
  notes: FillNote[];
}
/** Copies of several records in one file, with the notes of each. */
export interface FilledSheet {
  bytes: Uint8Array;
  notes: FillNote[][];
}

let worker: Worker | null = null;
const sent = new Set<string>();
const waiting = new Map<number, { resolve: (filled: FilledSheet) => void; reject: (error: Error) => void }>();
let counter = 0;
let sentColumns: readonly Column[] | null = null;

function previewWorker(): Worker {
  if (worker) return worker;
  worker = new Worker(new URL('./preview-worker.ts', import.meta.url), { type: 'module' });
  worker.onmessage = (event: MessageEvent<PreviewAnswer>) => {
    const answer = event.data;
    const asked = waiting.get(answer.id);
    waiting.delete(answer.id);
    if ('error' in answer) asked?.reject(new Error(answer.error));
    else asked?.resolve(answer);
  };
  worker.onerror = () => {
    for (const { reject } of waiting.values()) reject(new Error('The page could not be drawn. Load Mailbag again.'));
    waiting.clear();
    worker?.terminate();
    worker = null;
    sent.clear();
    sentColumns = null;
  };
  return worker;
}

function ask(wish: PreviewWish | SheetWish, template: PreviewTemplate): Promise<FilledSheet> {
  const target = previewWorker();
  const id = ++counter;
  return new Promise((resolve, reject) => {
    waiting.set(id, { resolve, reject });
    const { columns, ...rest } = wish;
    // What stays the same from letter to letter goes over once: copying it takes the screen's time.
    const request: PreviewRequest = {
      ...rest,
      id,
      ...(!sent.has(wish.template) && { sent: template }),
      ...(columns !== sentColumns && { columns }),
    };
    target.postMessage(request);
    sent.add(wish.template);
    sentColumns = columns;
  });
}

/** Fills a template with core in a worker, as a batch would. */
export async function fillPreview(wish: PreviewWish, template: PreviewTemplate): Promise<FilledPreview> {
  const { bytes, notes } = await ask(wish, template);
  return { bytes, notes: notes[0] ?? [] };
}

/** Fills a template for several records, into one file. */
export const fillSheet = (wish: SheetWish, template: PreviewTemplate): Promise<FilledSheet> => ask(wish, template);
