import type { FillNote } from '@mailbag/core';
import type { PreviewAnswer, PreviewRequest, PreviewTemplate, PreviewWish } from './preview-worker';

export interface FilledPreview {
  bytes: Uint8Array;
  notes: FillNote[];
}

let worker: Worker | null = null;
const sent = new Set<string>();
const waiting = new Map<number, { resolve: (filled: FilledPreview) => void; reject: (error: Error) => void }>();
let counter = 0;

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
  };
  return worker;
}

/** Fills a template with core in a worker, as a batch would. */
export function fillPreview(wish: PreviewWish, template: PreviewTemplate): Promise<FilledPreview> {
  const target = previewWorker();
  const id = ++counter;
  return new Promise((resolve, reject) => {
    waiting.set(id, { resolve, reject });
    target.postMessage({ ...wish, id, ...(sent.has(wish.template) ? {} : { sent: template }) } satisfies PreviewRequest);
    sent.add(wish.template);
  });
}
