import type { IntakeAnswers } from '@mailbag/core/intake';
import { useEffect, useRef, useState } from 'react';
import { filledForm } from './api';
import type { PersonalVisit } from './personal-link';
import { Note, Quiet, Sheet } from './styles';
import type { Say } from './words';

interface Props {
  word: string;
  edition: number;
  answers: IntakeAnswers;
  personal: PersonalVisit | null;
  forms: readonly string[];
  say: Say;
}

/** Dots a point in which pages are drawn: sharp on a phone, and no more than it can hold. */
const SCALE = 1.6;

/** Draws the pages of a PDF one after the other into an element. @returns what ends it */
function draw(bytes: Uint8Array, into: HTMLElement, label: (page: number) => string): { done: Promise<void>; stop: () => void } {
  let isOver = false;
  const done = (async () => {
    const [pdfjs, { default: Worker }] = await Promise.all([import('pdfjs-dist'), import('pdfjs-dist/build/pdf.worker.min.mjs?worker')]);
    pdfjs.GlobalWorkerOptions.workerPort ??= new Worker();
    const pdf = await pdfjs.getDocument({ data: bytes, isEvalSupported: false }).promise;
    const canvases: HTMLCanvasElement[] = [];
    for (let number = 1; number <= pdf.numPages && !isOver; number++) {
      const page = await pdf.getPage(number);
      const viewport = page.getViewport({ scale: SCALE });
      const canvas = document.createElement('canvas');
      Object.assign(canvas, { width: viewport.width, height: viewport.height });
      canvas.setAttribute('role', 'img');
      canvas.setAttribute('aria-label', label(number));
      await page.render({ canvas, viewport }).promise;
      canvases.push(canvas);
    }
    if (!isOver) into.replaceChildren(...canvases);
    await pdf.loadingTask.destroy();
  })();
  return { done, stop: () => void (isOver = true) };
}

/** The forms as they are filled so far, drawn from the very file that would be made. */
export function FilledForm({ word, edition, answers, personal, forms, say }: Props) {
  const [index, setIndex] = useState(0);
  const [copies, setCopies] = useState(1);
  const [state, setState] = useState<'drawing' | 'drawn' | 'failed'>('drawing');
  const sheet = useRef<HTMLDivElement>(null);
  useEffect(() => {
    let stop = (): void => undefined;
    let isOver = false;
    setState('drawing');
    void (async () => {
      try {
        const filled = await filledForm(word, edition, answers, index, personal);
        if (isOver) return;
        setCopies(filled.copies);
        const drawing = draw(filled.bytes, sheet.current!, (page) => `${forms[index] ?? ''} ${page}`);
        stop = drawing.stop;
        await drawing.done;
        if (!isOver) setState('drawn');
      } catch {
        if (!isOver) setState('failed');
      }
    })();
    return () => {
      isOver = true;
      stop();
    };
  }, [word, edition, answers, personal, index, forms]);
  return (
    <>
      {copies > 1 && (
        <select value={index} onChange={({ target }) => setIndex(Number(target.value))} aria-label={say('see')}>
          {Array.from({ length: copies }, (_, at) => (
            <option key={at} value={at}>
              {forms[at] ?? at + 1}
            </option>
          ))}
        </select>
      )}
      <div role="status">
        {state === 'drawing' && <Quiet>{say('drawing')}</Quiet>}
        {state === 'failed' && <Note>{say('cannotDraw')}</Note>}
      </div>
      <Sheet ref={sheet} />
    </>
  );
}
