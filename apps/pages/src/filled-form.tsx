import type { IntakeAnswers } from '@mailbag/core/intake';
import { useEffect, useState } from 'react';
import type { Box } from './api';
import { filledForm, loadBoxes } from './api';
import type { PersonalVisit } from './personal-token';
import { nearestBox } from './nearest-box';
import type { Spot } from './nearest-box';
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

/** Where a box lies on its page as it is seen. @param width and height of the page on the screen, CSS pixels */
type Place = (rect: Box['rect'], width: number, height: number) => Spot;

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
    const [pdfjs, { default: Worker }, { ShippedFiles }] = await Promise.all([
      import('pdfjs-dist'),
      import('pdfjs-dist/build/pdf.worker.min.mjs?worker'),
      import('./shipped-files'),
    ]);
    pdfjs.GlobalWorkerOptions.workerPort ??= new Worker();
    const pdf = await pdfjs.getDocument({
      data: bytes,
      isEvalSupported: false,
      BinaryDataFactory: ShippedFiles,
      useWorkerFetch: false,
      standardFontDataUrl: '/',
      cMapUrl: '/',
      cMapPacked: true,
      wasmUrl: '/',
    } as never).promise;
    const pages: DrawnPage[] = [];
    for (let number = 1; number <= pdf.numPages && !isOver; number++) {
      const page = await pdf.getPage(number);
      const viewport = page.getViewport({ scale: SCALE });
      const canvas = document.createElement('canvas');
      Object.assign(canvas, { width: viewport.width, height: viewport.height });
      canvas.setAttribute('role', 'img');
      canvas.setAttribute('aria-label', label(number));
      await page.render({ canvas, viewport }).promise;
      pages.push({
        canvas,
        place: (rect, width, height) => {
          const [x1, y1, x2, y2] = viewport.convertToViewportRectangle(rect) as Box['rect'];
          const [across, down] = [width / viewport.width, height / viewport.height];
          return {
            left: Math.min(x1, x2) * across,
            top: Math.min(y1, y2) * down,
            right: Math.max(x1, x2) * across,
            bottom: Math.max(y1, y2) * down,
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
          <Leaf
            key={at}
            onClick={({ currentTarget, clientX, clientY }) => {
              const { left, top, width, height } = currentTarget.getBoundingClientRect();
              const [x, y] = [clientX - left, clientY - top];
              const found = nearestBox(
                boxes.flatMap(({ question, form: own, page, rect }) =>
                  own === form && page === at + 1 && wordsOf(question) !== null ? [{ question, place: place(rect, width, height) }] : [],
                ),
                x,
                y,
              );
              if (found) onQuestion(found);
            }}
            ref={(own) => own?.replaceChildren(canvas)}
          />
        ))}
      </Sheet>
    </>
  );
}
