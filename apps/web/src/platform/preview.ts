import type { FieldValues, FillNote } from '@mailbag/core';
import type { PreviewAnswer, PreviewRequest } from './preview-worker';

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

/** Fills a template with core in a worker. @param key identifies the bytes of the template */
export function fillPreview(key: string, pdf: Uint8Array, values: FieldValues): Promise<FilledPreview> {
  const target = previewWorker();
  const id = ++counter;
  return new Promise((resolve, reject) => {
    waiting.set(id, { resolve, reject });
    target.postMessage({ id, template: key, values, ...(sent.has(key) ? {} : { pdf }) } satisfies PreviewRequest);
    sent.add(key);
  });
}
