import type { IntakeAnswers } from '@mailbag/core/intake';
import { useEffect, useState } from 'react';
import type { Box } from './api';
import { filledForm, loadBoxes } from './api';
import type { PersonalVisit } from './personal-link';
import { Leaf, Note, Quiet, Sheet } from './styles';
import type { Say } from './words';

interface Props {
  word: string;
  edition: number;
  answers: IntakeAnswers;
  personal: PersonalVisit | null;
  forms: readonly string[];
  /** Words of a question; null: it is not asked. */
  wordsOf: (id: string) => string | null;
  say: Say;
  /** Somebody wants to change an answer that they see. */
  onQuestion: (id: string) => void;
}

/** Dots a point in which pages are drawn: sharp on a phone, and no more than it can hold. */
const SCALE = 1.6;

/** Where a box lies on its page as it is seen, in parts of the page's sides. */
type Place = (rect: Box['rect']) => { left: string; top: string; width: string; height: string };

interface DrawnPage {
  canvas: HTMLCanvasElement;
  place: Place;
}

/** Draws the pages of a PDF one after the other. @returns what ends it */
function draw(
  bytes: Uint8Array,
  label: (page: number) => string,
  onDrawn: (pages: DrawnPage[]) => void,
): { done: Promise<void>; stop: () => void } {
  let isOver = false;
  const done = (async () => {
    const [pdfjs, { default: Worker }] = await Promise.all([import('pdfjs-dist'), import('pdfjs-dist/build/pdf.worker.min.mjs?worker')]);
    pdfjs.GlobalWorkerOptions.workerPort ??= new Worker();
    const pdf = await pdfjs.getDocument({ data: bytes, isEvalSupported: false }).promise;
    const pages: DrawnPage[] = [];
    for (let number = 1; number <= pdf.numPages && !isOver; number++) {
      const page = await pdf.getPage(number);
      const viewport = page.getViewport({ scale: SCALE });
      const canvas = document.createElement('canvas');
      Object.assign(canvas, { width: viewport.width, height: viewport.height });
      canvas.setAttribute('role', 'img');
      canvas.setAttribute('aria-label', label(number));
      await page.render({ canvas, viewport }).promise;
      const { width, height } = viewport;
      const part = (length: number, of: number): string => `${(100 * length) / of}%`;
      pages.push({
        canvas,
        place: (rect) => {
          const [x1, y1, x2, y2] = viewport.convertToViewportRectangle(rect) as [number, number, number, number];
          const [left, top] = [Math.min(x1, x2), Math.min(y1, y2)];
          return {
            left: part(left, width),
            top: part(top, height),
            width: part(Math.abs(x2 - x1), width),
            height: part(Math.abs(y2 - y1), height),
          };
        },
      });
    }
    if (!isOver) onDrawn(pages);
    await pdf.loadingTask.destroy();
  })();
  return { done, stop: () => void (isOver = true) };
}

/** The forms as they are filled so far, drawn from the very file that would be made. */
export function FilledForm({ word, edition, answers, personal, forms, wordsOf, say, onQuestion }: Props) {
  const [index, setIndex] = useState(0);
  const [made, setMade] = useState<number[]>([0]);
  const [form, setForm] = useState(0);
  const [pages, setPages] = useState<DrawnPage[]>([]);
  const [boxes, setBoxes] = useState<Box[]>([]);
  // Without them the form can be looked at all the same.
  useEffect(() => void loadBoxes(word, edition).then(setBoxes, () => undefined), [word, edition]);
  const [state, setState] = useState<'drawing' | 'drawn' | 'failed'>('drawing');
  useEffect(() => {
    let stop = (): void => undefined;
    let isOver = false;
    setState('drawing');
    void (async () => {
      try {
        const filled = await filledForm(word, edition, answers, index, personal);
        if (isOver) return;
        setMade(filled.forms);
        setForm(filled.form);
        const drawing = draw(filled.bytes, (page) => `${forms[filled.form] ?? ''} ${page}`, setPages);
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
      {made.length > 1 && (
        <select value={index} onChange={({ target }) => setIndex(Number(target.value))} aria-label={say('see')}>
          {made.map((own, at) => (
            <option key={at} value={at}>
              {forms[own] ?? at + 1}
            </option>
          ))}
        </select>
      )}
      <div role="status">
        {state === 'drawing' && <Quiet>{say('drawing')}</Quiet>}
        {state === 'failed' && <Note>{say('cannotDraw')}</Note>}
      </div>
      {state === 'drawn' && boxes.length > 0 && <Quiet>{say('tapHint')}</Quiet>}
      <Sheet>
        {pages.map(({ canvas, place }, at) => (
          <Leaf key={at}>
            <div ref={(own) => own?.replaceChildren(canvas)} />
            {boxes
              .filter((box) => box.form === form && box.page === at + 1)
              .map(({ question, rect }, own) => {
                const words = wordsOf(question);
                return words === null ? null : (
                  <button
                    key={own}
                    style={place(rect)}
                    aria-label={say('changeBox', { question: words })}
                    onClick={() => onQuestion(question)}
                  />
                );
              })}
          </Leaf>
        ))}
      </Sheet>
    </>
  );
}
