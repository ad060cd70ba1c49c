import type { FaceUse } from './appearance/draw-text.js';
import { TextObject, drawText, newFaceUse } from './appearance/draw-text.js';
import { num } from './appearance/number.js';
import type { TextBox, TextLayout } from './appearance/text-layout.js';
import { fittingBlock, fittingComb, layoutText, usualFit } from './appearance/text-layout.js';
import type { FaceChoice } from './appearance/text-run.js';
import { undrawable } from './appearance/text-run.js';
import { ByteWriter } from '../byte-writer.js';
import type { CompiledTemplate, PagePlan } from '../plan/compile.js';
import { chosenValues, shownText, stateFor, valueIn } from './field-value.js';
import type { FillOptions } from './fill-options.js';
import type { ImageData } from './image.js';
import { placeImage, readImage } from './image.js';
import { formatColour } from '../read/scripts/script.js';
import { drawLine } from './stamp/line-stamp.js';
import { drawStamp } from './stamp/stamp.js';
import type { FieldValue, FieldValues, FillNote, Fit, FitRule, Remedies } from '../value.js';
import type { WidgetPlan } from '../plan/widget-plan.js';

/** Type size of a list whose size is automatic, points, and what marks its chosen entries (measured; docs/layout.md). */
const LIST_SIZE = 12;
export const CHOSEN = '0.6 0.757 0.855 rg';

/** What a copy draws is written here, one copy after the other. */
const ink = new ByteWriter();
const wordInk = new ByteWriter();

/** The faces of each widget, the same object in every copy and for all widgets with the same, since words are remembered by it. */
const choices = new WeakMap<WidgetPlan, FaceChoice>();
const choicesOf = new WeakMap<CompiledTemplate['faces'], Map<string, FaceChoice>>();

function choiceFor({ coded }: WidgetPlan, extras: CompiledTemplate['faces']): FaceChoice {
  let shared = choicesOf.get(extras);
  if (!shared) choicesOf.set(extras, (shared = new Map()));
  const key = coded.map(({ resource }) => resource).join(' ');
  let choice = shared.get(key);
  if (!choice) shared.set(key, (choice = { coded, extras }));
  return choice;
}

const colourOf = ({ field, colour }: WidgetPlan, value: FieldValue | null): string =>
  (field.format && typeof value === 'string' ? formatColour(field.format, value) : null) ?? colour;

/** The entries of a list box that stand in it for a value, and the chosen ones for which it is not high enough. */
export function listRows(
  { field, box }: WidgetPlan,
  value: FieldValue | null,
): { shown: { label: string; isChosen: boolean }[]; unseen: string[] } {
  const chosen = new Set(chosenValues(field, value));
  const size = box.size || LIST_SIZE;
  const limit = Math.max(1, Math.floor(((box.height - 2 * Math.max(1, box.border)) * 1000 + 10) / (box.line.height * size)));
  const entries = field.options.map((option) => ({ label: option.label, isChosen: chosen.has(option.value) }));
  const first = entries.findIndex(({ isChosen }) => isChosen);
  const isAmongFirst = entries.slice(limit).every(({ isChosen }) => !isChosen);
  const from = isAmongFirst ? 0 : Math.min(first, Math.max(0, entries.length - limit));
  const seen = (index: number): boolean => index >= from && index < from + limit;
  return {
    shown: entries.slice(from, from + limit),
    unseen: entries.flatMap(({ label, isChosen }, index) => (isChosen && !seen(index) ? [label] : [])),
  };
}

/** Smallest type that is proposed, points: what is printed smaller is read by few (common practice, no source). */
const SMALLEST = 4;

/** What would make a text fit that does not. */
function remediesFor(text: string, box: TextBox, choice: FaceChoice, { smallest }: FitRule): Remedies {
  const fitting = (rule: FitRule): number | null => {
    const { fit, size } = layoutText(text, box, choice, rule);
    return fit === 'overflows' ? null : size;
  };
  return {
    smaller: smallest > SMALLEST ? fitting({ tooLong: 'shrink', smallest: SMALLEST }) : null,
    wrap: !box.multiline && box.comb === 0 && fitting({ tooLong: 'wrap', smallest }) !== null,
  };
}
const pick = ({ lost, remedies }: Partial<FillNote> = {}): Pick<FillNote, 'lost' | 'remedies'> => ({
  ...(lost !== undefined && { lost }),
  ...(remedies && { remedies }),
});

/** Everything that is drawn for one copy. */
export class Drawing {
  readonly ink = ink.clear();
  readonly use: FaceUse = newFaceUse();
  private noted: Map<string, FillNote> | null = null;
  readonly images: { name: string; image: ImageData }[] = [];
  private readonly imageOf = new Map<string, { name: string; image: ImageData }>();
  private readonly fit: FitRule;

  constructor(
    private readonly compiled: CompiledTemplate,
    readonly options: FillOptions,
  ) {
    this.fit = options.fit ?? usualFit;
  }
  get notes(): FillNote[] {
    return this.noted ? [...this.noted.values()] : [];
  }

  private choice(plan: WidgetPlan): FaceChoice {
    const known = choices.get(plan);
    if (known && known.extras === this.compiled.faces) return known;
    const choice = choiceFor(plan, this.compiled.faces);
    choices.set(plan, choice);
    return choice;
  }
  private fitOf({ field }: WidgetPlan): FitRule {
    const { fits } = this.options;
    return fits !== undefined && Object.hasOwn(fits, field.name) ? fits[field.name]! : this.fit;
  }
  private note(field: string, fit: Fit, missing: string[], unseen: string[] = [], over: Pick<FillNote, 'lost' | 'remedies'> = {}): void {
    this.noted ??= new Map();
    const known = this.noted.get(field);
    const fits: Fit[] = ['fits', 'tight', 'overflows'];
    this.noted.set(field, {
      field,
      fit: known && fits.indexOf(known.fit) > fits.indexOf(fit) ? known.fit : fit,
      characters: [...new Set([...(known?.characters ?? []), ...missing])],
      ...(unseen.length > 0 || known?.unseen ? { unseen: unseen.length > 0 ? unseen : known!.unseen! } : {}),
      // Of several boxes the one that loses the most.
      ...((over.lost?.length ?? -1) > (known?.lost?.length ?? -1) ? over : { ...pick(known) }),
    });
  }
  /** Entries from the first chosen one on where not all chosen ones stand among the first. */
  private list(plan: WidgetPlan, value: FieldValue | null): void {
    const { field, box, colour } = plan;
    const rows = listRows(plan, value);
    const size = box.size || LIST_SIZE;
    const lead = (box.line.height * size) / 1000;
    // Entries follow each other without a space between them, and what hangs below one may reach into the next.
    const line: TextBox = { ...box, height: 2 * lead, multiline: false, comb: 0, size, border: 0 };
    rows.shown.forEach(({ label, isChosen }, index) => {
      const bottom = box.height - Math.max(1, box.border) - (index + 1) * lead;
      if (isChosen) this.ink.ascii(`${CHOSEN}\n${num(box.border)} ${num(bottom)} ${num(box.width - 2 * box.border)} ${num(lead)} re f\n`);
      const layout = layoutText(label, line, this.choice(plan), this.fitOf(plan));
      const missing = undrawable(label, this.choice(plan));
      if (isChosen && (layout.fit !== 'fits' || missing.length > 0)) this.note(field.name, layout.fit, missing);
      drawText(this.ink, { ...layout, lines: layout.lines.map((one) => ({ ...one, y: one.y + bottom - lead / 2 })) }, colour, this.use);
    });
    if (rows.unseen.length > 0) this.note(field.name, 'overflows', [], rows.unseen);
  }
  /** Draws a text or choice field in its upright box. */
  text(plan: WidgetPlan, value: FieldValue | null): void {
    if (plan.field.kind === 'list') return this.list(plan, value);
    const layout = this.layout(plan, value);
    if (layout) drawText(this.ink, layout, colourOf(plan, value), this.use);
  }
  /** Null: nothing is to be drawn. */
  private layout(plan: WidgetPlan, value: FieldValue | null): TextLayout | null {
    const text = shownText(plan.field, value);
    if (text === '') return null;
    const choice = this.choice(plan);
    const fit = this.fitOf(plan);
    const layout = layoutText(text, plan.box, choice, fit);
    // One line with as many characters as the value has left none out.
    const drawn = layout.lines.length === 1 ? layout.lines[0]!.runs.reduce((sum, run) => sum + run.text.length, 0) : -1;
    const missing = drawn === text.length ? [] : undrawable(text, choice);
    if (layout.fit === 'overflows') {
      const remedies = layout.lost === '' ? undefined : remediesFor(text, plan.box, choice, fit);
      this.note(plan.field.name, layout.fit, missing, [], { lost: layout.lost ?? '', ...(remedies && { remedies }) });
    } else if (layout.fit !== 'fits' || missing.length > 0) this.note(plan.field.name, layout.fit, missing);
    return layout;
  }
  hasImage(plan: WidgetPlan): boolean {
    return this.options.images !== undefined && Object.hasOwn(this.options.images, plan.field.name);
  }
  /** @throws MailbagError image-unreadable */
  image(plan: WidgetPlan): void {
    const { name: field } = plan.field;
    let known = this.imageOf.get(field);
    if (!known) {
      this.imageOf.set(field, (known = { name: `MbI${this.images.length}`, image: readImage(this.options.images![field]!, field) }));
      this.images.push(known);
    }
    const { x, y, width, height } = placeImage(known.image, { ...plan.box, width: plan.width });
    this.ink.ascii(`q ${num(width)} 0 0 ${num(height)} ${num(x)} ${num(y)} cm /${known.name} Do Q\n`);
  }
  private slow(plan: WidgetPlan, value: FieldValue | null, words: TextObject): void {
    const { ink } = this;
    const layout = plan.isFlat ? this.layout(plan, value) : null;
    if (plan.isFlat && layout?.fit !== 'overflows') {
      if (layout) words.layout(layout, colourOf(plan, value), plan.rect[0]!, plan.rect[1]!);
      return;
    }
    ink.ascii(plan.open + plan.squeeze);
    if (layout) drawText(ink, layout, colourOf(plan, value), this.use);
    else this.text(plan, value);
    ink.ascii(plan.close);
  }
  /** The quick ways for values that fit, drawn in the first face and without a state of their own. @returns whether one of them went */
  private quick(plan: WidgetPlan, text: string, words: TextObject): boolean {
    const { line, box, coded, colour, field } = plan;
    const face = coded[0];
    if (line === null && (field.format !== null || field.isPassword || field.kind !== 'text' || (box.comb === 0 && !box.multiline)))
      return false;
    if (line !== null) return text === '' || words.line(face, line.size, colour, line.at, text, line.room);
    if (face.load(text) < 0) return false;
    const [left = 0, bottom = 0] = plan.rect;
    if (box.comb > 0) {
      const comb = fittingComb(text, box, face, this.fitOf(plan));
      if (comb)
        words.cells(face, comb.size, colour, text.length, { left, y: bottom + comb.y, cell: box.width / box.comb, first: comb.first });
      return comb !== null;
    }
    const block = fittingBlock(box, face);
    if (block) words.block(face, block, colour, box, left, bottom);
    return block !== null;
  }
  /** One widget, into the page's text object where it can stand there. */
  private widget(plan: WidgetPlan, values: FieldValues, words: TextObject): void {
    const { ink } = this;
    if (this.options.images !== undefined && this.hasImage(plan)) {
      ink.ascii(plan.open);
      this.image(plan);
      ink.ascii(plan.close);
      return;
    }
    const given = valueIn(values, plan.field.name);
    const value = given === undefined ? plan.field.value : given;
    if (given === undefined && plan.untouched !== null) ink.ascii(plan.untouched);
    else if (plan.onValue !== null) ink.ascii(stateFor(plan.field, value) === plan.onValue ? plan.on : plan.off);
    else if (
      !plan.isFlat ||
      typeof value !== 'string' ||
      !this.quick(plan, plan.field.kind === 'combo' ? shownText(plan.field, value) : value, words)
    )
      this.slow(plan, value, words);
  }
  /** What a page's overlay draws: first what needs a state of its own, then all other text as one object. */
  page(page: PagePlan, values: FieldValues): void {
    const { ink } = this;
    const words = new TextObject(wordInk.clear(), this.use);
    ink.ascii(page.beneath);
    for (const plan of page.widgets) {
      if (plan.mark === null) {
        this.widget(plan, values, words);
        continue;
      }
      // Its content stands in the page's text object or before it, never in both.
      const { mark } = plan;
      const before = ink.length;
      ink.ascii(mark);
      const begun = ink.length;
      words.marked(mark, () => this.widget(plan, values, words));
      if (ink.length === begun) ink.length = before;
      else ink.ascii('EMC\n');
    }
    words.done();
    ink.bytes(wordInk.view());
    if (page.stamps.length > 0 && this.options.code) {
      ink.ascii(`q ${page.seen.matrix} cm\n`);
      for (const stamp of page.stamps)
        if ('symbology' in stamp) ink.ascii(drawStamp(stamp, this.options.code, this.options.link));
        else drawLine(stamp, this.options.lineOf?.(stamp.text) ?? '', ink);
      ink.ascii('Q\n');
    }
  }
}
