import { t } from '@mailbag/core/words';
import type { LayoutAidsAnswer, LayoutAnswer } from '@mailbag/contract';
import type { Drawn, DrawnField, Layout, SeenBox } from '@mailbag/core';
import { boxOf, copied, drawnIn, onPage, pageOf, seenBox, withBoxes, withDrawn, withoutDrawn } from '@mailbag/core';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { DeskEditor } from '../../../features/editing/use-desk';
import { randomKey } from '../../../platform/random-key';
import { useUndoKeys } from '../../../ui/use-undo-keys';
import { clipboard } from './clipboard';
import { around, isWithin } from './drag';
import type { OfferedBlank, Placed } from './drawing-page';
import type { LengthUnit } from './place-settings';
import type { DrawTool, Tool } from './tools';
import { newDrawn, toolFacts } from './tools';
import { useLayoutKeys } from './use-layout-keys';

/** What the drawing board shows and can do. */
export type LayoutBoard = ReturnType<typeof useLayoutBoard>;

/** All that is done on a drawing board, by hand, by key and by numbers. */
export function useLayoutBoard(answer: LayoutAnswer, aids: LayoutAidsAnswer | undefined, editor: DeskEditor<Layout>) {
  const { pages } = answer;
  const { document: layout, change } = editor;
  const [tool, setTool] = useState<Tool>('select');
  const [chosenKeys, choose] = useState<readonly string[]>([]);
  const [zoom, setZoom] = useState(1);
  const [unit, setUnit] = useState<LengthUnit>('mm');
  const [pointedBlank, pointBlank] = useState<number | null>(null);
  const [offersBlanks, offerBlanks] = useState(true);
  const ground = useRef<HTMLDivElement>(null);
  const board = useRef<HTMLDivElement>(null);
  useUndoKeys(editor.undo, editor.redo);

  const drawn = useMemo(() => drawnIn(layout), [layout]);
  // A thing that did not change is the same object as before, so that its box is not drawn again.
  const known = useRef(new Map<string, { of: DrawnField | object; placed: Placed }>());
  const items = useMemo(() => {
    const next = new Map<string, { of: DrawnField | object; placed: Placed }>();
    for (const one of drawn) {
      const of = one.what === 'field' ? one.field : one.stamp;
      const before = known.current.get(one.key);
      next.set(one.key, before?.of === of ? before : { of, placed: { drawn: one, box: boxOf(one, pages) } });
    }
    known.current = next;
    return [...next.values()].map(({ placed }) => placed);
  }, [drawn, pages]);
  const boxes = useMemo(() => new Map(items.map(({ drawn: one, box }) => [one.key, box])), [items]);
  const chosen = useMemo(() => new Set(chosenKeys.filter((key) => boxes.has(key))), [chosenKeys, boxes]);
  const chosenItems = useMemo(() => drawn.filter(({ key }) => chosen.has(key)), [drawn, chosen]);

  const ownByPage = useMemo(
    () =>
      pages.map((size, index) =>
        answer.fields.flatMap(({ widgets }) =>
          widgets.filter(({ page, hidden }) => page === index + 1 && !hidden).map(({ rect }) => seenBox(rect, size)),
        ),
      ),
    [answer.fields, pages],
  );
  const lines = useMemo(
    () =>
      pages.map((size, index) =>
        [...(aids?.pages[index]?.lines ?? []), ...(aids?.pages[index]?.baselines ?? [])].map((box) => seenBox(box, size)),
      ),
    [aids, pages],
  );
  const blanks = useMemo(() => {
    const offered: OfferedBlank[][] = pages.map(() => []);
    aids?.blanks.forEach((blank, index) => {
      const size = pages[blank.page - 1];
      if (!size) return;
      const box = seenBox(blank.rect, size);
      const isTaken = items.some((item) => pageOf(item.drawn) === blank.page && (isWithin(box, item.box) || isWithin(item.box, box)));
      if (!isTaken) offered[blank.page - 1]!.push({ index, label: blank.label ?? t`without a label`, box });
    });
    return offered;
  }, [aids, items, pages]);
  const ownNames = useMemo(() => answer.fields.map(({ name }) => name), [answer.fields]);

  const add = useCallback(
    (added: readonly Drawn[]): void => {
      if (added.length === 0) return;
      change((one) => withDrawn(one, added, ownNames));
      choose(added.map(({ key }) => key));
    },
    [change, ownNames],
  );
  const move = (next: ReadonlyMap<string, SeenBox>): void => {
    if (next.size > 0) change((one) => withBoxes(one, next, pages));
  };
  const takeBlanks = (indexes: readonly number[]): void => {
    setTool('select');
    add(indexes.map((index): Drawn => ({ key: randomKey(), what: 'field', field: aids!.blanks[index]! })));
  };
  /** The page that is most in view, and the middle of what is seen of it. */
  const inView = (): { page: number; x: number; y: number } => {
    const frame = ground.current?.getBoundingClientRect();
    if (!frame) return { page: 1, x: 0, y: 0 };
    const middle = (frame.top + frame.bottom) / 2;
    const sheets = [...ground.current!.querySelectorAll<HTMLElement>('[data-page]')];
    const away = (sheet: HTMLElement): number => {
      const { top, bottom } = sheet.getBoundingClientRect();
      return Math.max(0, top - middle, middle - bottom);
    };
    const sheet = sheets.sort((a, b) => away(a) - away(b))[0]!;
    const { left, right, top, bottom } = sheet.getBoundingClientRect();
    const page = Number(sheet.dataset['page']);
    const scale = (right - left) / pages[page - 1]!.width;
    const [from, to] = [Math.max(frame.left, left), Math.min(frame.right, right)];
    return {
      page,
      x: ((from + to) / 2 - left) / scale,
      y: ((Math.max(frame.top, top) + Math.min(frame.bottom, bottom)) / 2 - top) / scale,
    };
  };
  /** @param isByHand it was put where it is to be: what is printed there names it */
  const draw = (
    what: DrawTool,
    page: number,
    box: SeenBox | null,
    at: { x: number; y: number },
    { goesOn = false, isByHand = true } = {},
  ): string => {
    const key = randomKey();
    const { width, height } = toolFacts[what];
    const size = pages[page - 1]!;
    const there = onPage(box ?? { left: at.x, top: at.y, right: at.x + width, bottom: at.y + height }, size);
    const under = isByHand && blanks[page - 1]!.find((blank) => isWithin(blank.box, there) || isWithin(there, blank.box));
    add([newDrawn(what, key, page, there, size, under ? aids!.blanks[under.index]! : null)]);
    if (!goesOn) setTool('select');
    return key;
  };
  // What was put there by key has the focus, so that the next keys move it.
  const toFocus = useRef<string | null>(null);
  useEffect(() => {
    const box = toFocus.current && board.current?.querySelector<HTMLElement>(`button[data-key="${CSS.escape(toFocus.current)}"]`);
    if (!box) return;
    toFocus.current = null;
    box.focus({ preventScroll: true });
    box.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [items]);
  const place = (what: DrawTool): void => {
    const { page, x, y } = inView();
    const { width, height } = toolFacts[what];
    toFocus.current = draw(what, page, null, { x: x - width / 2, y: y - height / 2 }, { isByHand: false });
  };
  const duplicate = (): void => {
    const copies = copied(chosenItems, { dx: 12, dy: 12, newKey: randomKey }, pages);
    toFocus.current = copies[0]?.key ?? null;
    add(copies);
  };
  const remove = (): void => {
    if (chosen.size === 0) return;
    change((one) => withoutDrawn(one, chosen));
    choose([]);
  };
  const copy = (): void => {
    if (chosen.size > 0) clipboard.put(chosenItems.map((one) => ({ drawn: one, box: boxes.get(one.key)! })));
  };
  const paste = (): void => {
    const clips = clipboard.take();
    if (clips.length === 0) return;
    const { page } = inView();
    const size = pages[page - 1]!;
    const isHere = clips.some(({ drawn: one, box }) => {
      const there = boxes.get(one.key);
      return there && pageOf(one) === page && Math.abs(there.left - box.left) < 1 && Math.abs(there.top - box.top) < 1;
    });
    const by = isHere ? 12 : 0;
    const put = clips.map(({ drawn: one, box }): Drawn => {
      const [moved] = copied([one], { page, newKey: randomKey }, pages);
      const at = onPage({ left: box.left + by, right: box.right + by, top: box.top + by, bottom: box.bottom + by }, size);
      const placed = withBoxes(withDrawn({ fields: {}, order: [], stamps: {} }, [moved!]), new Map([[moved!.key, at]]), pages);
      return drawnIn(placed)[0]!;
    });
    toFocus.current = put[0]!.key;
    add(put);
  };
  const nudge = (dx: number, dy: number): void => {
    const held = chosenItems.map((one): [string, SeenBox] => {
      const { left, right, top, bottom } = boxes.get(one.key)!;
      return [one.key, onPage({ left: left + dx, right: right + dx, top: top + dy, bottom: bottom + dy }, pages[pageOf(one) - 1]!)];
    });
    move(new Map(held));
  };
  const grow = (dx: number, dy: number): void =>
    move(
      new Map(
        chosenItems.map(({ key }): [string, SeenBox] => {
          const box = boxes.get(key)!;
          return [key, { ...box, right: Math.max(box.left + 4, box.right + dx), bottom: Math.max(box.top + 4, box.bottom + dy) }];
        }),
      ),
    );
  const orderTo = (order: readonly string[]): void => change((one) => ({ ...one, order: [...order] }));
  const fieldKeys = drawn.flatMap(({ key, what }) => (what === 'field' ? [key] : []));
  const putAt = (key: string, index: number): void => {
    const rest = fieldKeys.filter((one) => one !== key);
    orderTo([...rest.slice(0, index), key, ...rest.slice(index)]);
  };

  useLayoutKeys(
    {
      nudge,
      grow,
      remove,
      duplicate,
      copy,
      cut: () => {
        copy();
        remove();
      },
      paste,
      all: () => choose(drawn.filter((one) => pageOf(one) === inView().page).map(({ key }) => key)),
      escape: () => (tool === 'select' ? choose([]) : setTool('select')),
      place: () => {
        if (tool === 'select' || tool === 'take') return false;
        place(tool);
        return true;
      },
      reorder: (by) => {
        const [only] = chosenItems;
        if (chosenItems.length !== 1 || only!.what !== 'field') return;
        putAt(only!.key, Math.max(0, fieldKeys.indexOf(only!.key) + by));
      },
    },
    board,
  );

  return {
    layout,
    change,
    pages,
    drawn,
    items,
    boxes,
    chosen,
    chosenItems,
    choose: choose as (keys: string[]) => void,
    tool,
    setTool,
    zoom,
    setZoom,
    unit,
    setUnit,
    ground,
    board,
    lines,
    ownByPage,
    ownNames,
    blanks: offersBlanks ? blanks : [],
    pointedBlank,
    pointBlank,
    offersBlanks,
    offerBlanks,
    fieldKeys,
    orderTo,
    putAt,
    move,
    draw,
    place,
    duplicate,
    takeBlanks,
    repeatDown: (count: number, step: number): void =>
      add(Array.from({ length: count }, (_, time) => copied(chosenItems, { dy: step * (time + 1), newKey: randomKey }, pages)).flat()),
    onEveryPage: (): void =>
      add(
        pages.flatMap((_, index) =>
          copied(
            chosenItems.filter((one) => pageOf(one) !== index + 1),
            { page: index + 1, newKey: randomKey },
            pages,
          ),
        ),
      ),
    heightOfChosen: (): number => {
      const { top, bottom } = around(chosenItems.map(({ key }) => boxes.get(key)!));
      return bottom - top;
    },
  };
}
