import { t } from '@mailbag/core/words';
import type { Column, FillNote } from '@mailbag/core';
import { MailbagError } from '@mailbag/core';
import type { PreviewAnswer, PreviewRequest, PreviewTemplate, PreviewWish, SheetWish } from './preview-worker';

export interface FilledPreview {
  /** The same array as long as it is the same file. */
  bytes: Uint8Array;
  /** What is drawn over it; null: nothing. */
  layer: Uint8Array | null;
  notes: FillNote[];
}
/** Copies of several records in one file, with the notes of each. */
export interface FilledSheet {
  bytes: Uint8Array;
  layer: Uint8Array | null;
  notes: FillNote[][];
}

let worker: Worker | null = null;
const sent = new Set<string>();
const waiting = new Map<number, { resolve: (filled: FilledSheet) => void; reject: (error: Error) => void }>();
let counter = 0;
let sentColumns: readonly Column[] | null = null;
let sentImages: PreviewWish['images'] | null = null;
/** What layers lie over, as it came last. */
let rest: Uint8Array = new Uint8Array(0);

function previewWorker(): Worker {
  if (worker) return worker;
  worker = new Worker(new URL('./preview-worker.ts', import.meta.url), { type: 'module' });
  worker.onmessage = (event: MessageEvent<PreviewAnswer>) => {
    const answer = event.data;
    const asked = waiting.get(answer.id);
    waiting.delete(answer.id);
    if ('error' in answer)
      return asked?.reject(typeof answer.error === 'string' ? new Error(answer.error) : MailbagError.from(answer.error));
    if (answer.layer && answer.bytes) rest = answer.bytes;
    asked?.resolve({ ...answer, bytes: answer.bytes ?? rest });
  };
  worker.onerror = () => {
    for (const { reject } of waiting.values()) reject(new Error(t`The page could not be drawn. Reload Mailbag.`));
    waiting.clear();
    worker?.terminate();
    worker = null;
    sent.clear();
    sentColumns = null;
    sentImages = null;
  };
  return worker;
}

function ask(wish: PreviewWish | SheetWish, template: PreviewTemplate): Promise<FilledSheet> {
  const target = previewWorker();
  const id = ++counter;
  return new Promise((resolve, reject) => {
    waiting.set(id, { resolve, reject });
    const { columns, images, ...others } = wish;
    // What stays the same from letter to letter goes over once: copying it takes the screen's time.
    const request: PreviewRequest = {
      ...others,
      id,
      ...(!sent.has(wish.template) && { sent: template }),
      ...(columns !== sentColumns && { columns }),
      ...(images !== sentImages && { images }),
    };
    target.postMessage(request);
    sent.add(wish.template);
    sentColumns = columns;
    sentImages = images;
  });
}

/** Fills a template with core in a worker, as a batch would. */
export async function fillPreview(wish: PreviewWish, template: PreviewTemplate): Promise<FilledPreview> {
  const { bytes, layer, notes } = await ask(wish, template);
  return { bytes, layer, notes: notes[0] ?? [] };
}

/** Fills a template for several records, into one file. */
export const fillSheet = (wish: SheetWish, template: PreviewTemplate): Promise<FilledSheet> => ask(wish, template);
