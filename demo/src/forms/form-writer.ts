/** Writes small fillable PDFs by hand (ISO 32000-2), for the invented world. Coordinates in points from the top left of the page. */

export interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}

interface Common {
  /** Fully qualified name; dots make a hierarchy. */
  name: string;
  tip?: string;
  required?: boolean;
  readOnly?: boolean;
}
export type FieldSpec = Common &
  (
    | {
        kind: 'text';
        boxes: [page: number, box: Box][];
        multiline?: boolean;
        comb?: boolean;
        maxLength?: number;
        size?: number;
        align?: 0 | 1 | 2;
      }
    | { kind: 'tick'; boxes: [page: number, box: Box][]; on?: string }
    | { kind: 'radio'; choices: [on: string, page: number, box: Box][] }
    | { kind: 'menu'; boxes: [page: number, box: Box][]; options: [value: string, label: string][]; size?: number }
    | { kind: 'signature'; boxes: [page: number, box: Box][] }
    /** A push button that is nothing but a picture. */
    | { kind: 'picture'; boxes: [page: number, box: Box][] }
  );

const WIDTH = 595;
const HEIGHT = 842;

/** Bit positions of field flags (ISO 32000-2, 12.7.4 and 12.7.5). */
const bit = (position: number): number => 1 << (position - 1);
const string = (text: string): string =>
  /^[\u0020-\u007e]*$/.test(text)
    ? `(${text.replace(/[\\()]/g, '\\$&')})`
    : `<feff${Array.from({ length: text.length }, (_, index) => text.charCodeAt(index).toString(16).padStart(4, '0')).join('')}>`;
const name = (text: string): string =>
  `/${text.replace(/[^A-Za-z0-9_-]/g, (char) => `#${char.charCodeAt(0).toString(16).padStart(2, '0')}`)}`;
const octal = (text: string): string =>
  Array.from(text, (char) => {
    const code = { '€': 0x80, '–': 0x96, '’': 0x92 }[char] ?? char.charCodeAt(0);
    return code > 126 || '()\\'.includes(char) ? `\\${code.toString(8).padStart(3, '0')}` : char;
  }).join('');

export class FormWriter {
  private readonly pages: string[] = [];
  private readonly fields: FieldSpec[] = [];

  constructor(private readonly title: string) {}

  /** Begins a page; what follows is drawn on it. */
  page(): this {
    this.pages.push('');
    return this;
  }
  private draw(operators: string): this {
    this.pages[this.pages.length - 1] += operators;
    return this;
  }
  text(
    x: number,
    y: number,
    text: string,
    { size = 10, bold = false, grey = 0 }: { size?: number; bold?: boolean; grey?: number } = {},
  ): this {
    return this.draw(`BT ${grey} g /${bold ? 'B' : 'R'} ${size} Tf 1 0 0 1 ${x} ${HEIGHT - y} Tm (${octal(text)}) Tj ET\n`);
  }
  paragraph(x: number, y: number, lines: string[], size = 8.5): this {
    lines.forEach((line, index) => this.text(x, y + index * size * 1.35, line, { size, grey: 0.25 }));
    return this;
  }
  rule(x: number, y: number, w: number, width = 0.8): this {
    return this.draw(`0.2 G ${width} w ${x} ${HEIGHT - y} m ${x + w} ${HEIGHT - y} l S\n`);
  }
  /** A box to be ticked by hand. */
  square({ x, y, w, h }: Box): this {
    return this.draw(`0.2 G 0.8 w ${x} ${HEIGHT - y - h} ${w} ${h} re S\n`);
  }
  heading(y: number, text: string): this {
    return this.text(56, y, text, { size: 11, bold: true }).rule(56, y + 4, 483);
  }
  /** A field with its printed label above the first box. */
  field(spec: FieldSpec, label?: string): this {
    this.fields.push(spec);
    const box = spec.kind === 'radio' ? null : spec.boxes[0]?.[1];
    if (label && box) {
      if (spec.kind === 'tick') this.text(box.x + box.w + 5, box.y + box.h - 2, label, { size: 9 });
      else this.text(box.x, box.y - 3, label, { size: 7.5, grey: 0.35 });
    }
    return this;
  }

  bytes(): Uint8Array {
    const objects: string[] = [];
    const add = (body: string): number => objects.push(body);
    const stream = (dict: string, body: string): string => `<<${dict}/Length ${body.length}>>\nstream\n${body}\nendstream`;
    const catalog = add('');
    const tree = add('');
    const regular = add('<</Type/Font/Subtype/Type1/BaseFont/Helvetica/Encoding/WinAnsiEncoding>>');
    const bold = add('<</Type/Font/Subtype/Type1/BaseFont/Helvetica-Bold/Encoding/WinAnsiEncoding>>');
    const marks = add('<</Type/Font/Subtype/Type1/BaseFont/ZapfDingbats>>');
    const pageNumbers = this.pages.map(() => add(''));
    const annotations: number[][] = this.pages.map(() => []);

    const rect = ({ x, y, w, h }: Box): string => `[${x} ${HEIGHT - y - h} ${x + w} ${HEIGHT - y}]`;
    const widget = (page: number, box: Box, rest: string): string =>
      `/Type/Annot/Subtype/Widget/F 4/P ${pageNumbers[page]} 0 R/Rect${rect(box)}${rest}`;
    const look = '/MK<</BC[0.45]/BG[0.985]>>/BS<</W 0.7/S/S>>';
    const states = (on: string, box: Box, round: boolean): string => {
      const frame = round ? '' : `0.985 g 0.45 G 0.7 w 0.35 0.35 ${box.w - 0.7} ${box.h - 0.7} re B\n`;
      const ring = round ? `0.45 G 0.7 w ${circle(box.w / 2, box.h / 2, box.w / 2 - 0.5)} S\n` : '';
      const mark = round
        ? `0.13 0.19 0.24 rg ${circle(box.w / 2, box.h / 2, box.w / 4.2)} f\n`
        : `0.13 0.19 0.24 RG 1.3 w 1 J ${box.w * 0.22} ${box.h * 0.22} m ${box.w * 0.78} ${box.h * 0.78} l S ${box.w * 0.22} ${box.h * 0.78} m ${box.w * 0.78} ${box.h * 0.22} l S\n`;
      const make = (body: string): number => add(stream(`/Type/XObject/Subtype/Form/BBox[0 0 ${box.w} ${box.h}]/Resources<<>>`, body));
      return `/AP<</N<<${name(on)} ${make(frame + ring + mark)} 0 R/Off ${make(frame + ring)} 0 R>>>>`;
    };

    const inner = new Map<string, { number: number; kids: number[]; parent: number | null; partial: string }>();
    const top: number[] = [];
    const parentOf = (qualified: string): number | null => {
      const parts = qualified.split('.').slice(0, -1);
      let parent: number | null = null;
      parts.forEach((partial, index) => {
        const path = parts.slice(0, index + 1).join('.');
        let node = inner.get(path);
        if (!node) {
          inner.set(path, (node = { number: add(''), kids: [], parent, partial }));
          if (parent === null) top.push(node.number);
          else [...inner.values()].find((one) => one.number === parent)!.kids.push(node.number);
        }
        parent = node.number;
      });
      return parent;
    };
    for (const spec of this.fields) {
      const parent = parentOf(spec.name);
      const partial = spec.name.split('.').at(-1)!;
      const flags = (spec.required ? bit(2) : 0) | (spec.readOnly ? bit(1) : 0);
      const common = `/T${string(partial)}${spec.tip ? `/TU${string(spec.tip)}` : ''}${parent === null ? '' : `/Parent ${parent} 0 R`}`;
      let own = '';
      let places: [number, string][] = [];
      if (spec.kind === 'text') {
        const bits = flags | (spec.multiline ? bit(13) : 0) | (spec.comb ? bit(25) : 0);
        own = `/FT/Tx/Ff ${bits}/DA(/R ${spec.size ?? 10} Tf 0.1 0.14 0.18 rg)${spec.align ? `/Q ${spec.align}` : ''}${spec.maxLength ? `/MaxLen ${spec.maxLength}` : ''}`;
        places = spec.boxes.map(([page, box]) => {
          const cells = spec.comb && spec.maxLength ? spec.maxLength : 0;
          for (let index = 1; index < cells; index++) {
            const x = box.x + (index * box.w) / cells;
            this.pages[page] += `0.7 G 0.4 w ${x} ${HEIGHT - box.y - box.h} m ${x} ${HEIGHT - box.y - box.h * 0.6} l S\n`;
          }
          return [page, widget(page, box, cells ? '/MK<</BC[0.45]>>/BS<</W 0.7/S/S>>' : look)];
        });
      } else if (spec.kind === 'tick') {
        own = `/FT/Btn/Ff ${flags}/V/Off`;
        places = spec.boxes.map(([page, box]) => [page, widget(page, box, `/AS/Off${states(spec.on ?? 'Yes', box, false)}`)]);
      } else if (spec.kind === 'radio') {
        own = `/FT/Btn/Ff ${flags | bit(16) | bit(15)}/V/Off`;
        places = spec.choices.map(([on, page, box]) => [page, widget(page, box, `/AS/Off${states(on, box, true)}`)]);
      } else if (spec.kind === 'menu') {
        own = `/FT/Ch/Ff ${flags | bit(18)}/DA(/R ${spec.size ?? 10} Tf 0.1 0.14 0.18 rg)/Opt[${spec.options.map(([value, label]) => `[${string(value)}${string(label)}]`).join('')}]`;
        places = spec.boxes.map(([page, box]) => [page, widget(page, box, look)]);
      } else {
        own = spec.kind === 'picture' ? `/FT/Btn/Ff ${flags | bit(17)}` : '/FT/Sig';
        places = spec.boxes.map(([page, box]) => [page, widget(page, box, spec.kind === 'picture' ? '/MK<</TP 1>>' : '')]);
        for (const [page, box] of spec.boxes)
          this.pages[page] += `0.45 G 0.7 w ${box.x} ${HEIGHT - box.y - box.h} ${box.w} ${box.h} re S\n`;
      }
      let number: number;
      if (places.length === 1 && spec.kind !== 'radio') {
        number = add(`<<${common}${own}${places[0]![1]}>>`);
        annotations[places[0]![0]]!.push(number);
      } else {
        number = add('');
        const kids = places.map(([page, body]) => {
          const kid = add(`<<${body}/Parent ${number} 0 R>>`);
          annotations[page]!.push(kid);
          return kid;
        });
        objects[number - 1] = `<<${common}${own}/Kids[${kids.map((kid) => `${kid} 0 R`).join(' ')}]>>`;
      }
      if (parent === null) top.push(number);
      else [...inner.values()].find((one) => one.number === parent)!.kids.push(number);
    }
    for (const { number, kids, parent, partial } of inner.values()) {
      objects[number - 1] =
        `<</T${string(partial)}/Kids[${kids.map((kid) => `${kid} 0 R`).join(' ')}]${parent === null ? '' : `/Parent ${parent} 0 R`}>>`;
    }
    this.pages.forEach((body, index) => {
      const contents = add(stream('', body));
      objects[pageNumbers[index]! - 1] =
        `<</Type/Page/Parent ${tree} 0 R/MediaBox[0 0 ${WIDTH} ${HEIGHT}]/Resources<</Font<</R ${regular} 0 R/B ${bold} 0 R>>>>/Contents ${contents} 0 R` +
        `${annotations[index]!.length ? `/Annots[${annotations[index]!.map((one) => `${one} 0 R`).join(' ')}]` : ''}>>`;
    });
    objects[tree - 1] = `<</Type/Pages/Count ${this.pages.length}/Kids[${pageNumbers.map((one) => `${one} 0 R`).join(' ')}]>>`;
    objects[catalog - 1] =
      `<</Type/Catalog/Pages ${tree} 0 R/Lang(en)/AcroForm<</Fields[${top.map((one) => `${one} 0 R`).join(' ')}]/DA(/R 10 Tf 0 g)/DR<</Font<</R ${regular} 0 R/ZaDb ${marks} 0 R>>>>>>>>`;
    const info = add(`<</Title${string(this.title)}/Producer(Larkmere allotment office)>>`);

    let file = '%PDF-1.7\n%\u00e2\u00e3\u00cf\u00d3\n';
    const offsets = objects.map((body, index) => {
      const offset = file.length;
      file += `${index + 1} 0 obj\n${body}\nendobj\n`;
      return offset;
    });
    const start = file.length;
    file += `xref\n0 ${objects.length + 1}\n0000000000 65535 f\r\n${offsets.map((offset) => `${String(offset).padStart(10, '0')} 00000 n\r\n`).join('')}`;
    file += `trailer\n<</Size ${objects.length + 1}/Root ${catalog} 0 R/Info ${info} 0 R>>\nstartxref\n${start}\n%%EOF\n`;
    return Uint8Array.from(file, (char) => char.charCodeAt(0));
  }
}

function circle(cx: number, cy: number, radius: number): string {
  const arm = radius * 0.5523;
  return `${cx + radius} ${cy} m ${cx + radius} ${cy + arm} ${cx + arm} ${cy + radius} ${cx} ${cy + radius} c ${cx - arm} ${cy + radius} ${cx - radius} ${cy + arm} ${cx - radius} ${cy} c ${cx - radius} ${cy - arm} ${cx - arm} ${cy - radius} ${cx} ${cy - radius} c ${cx + arm} ${cy - radius} ${cx + radius} ${cy - arm} ${cx + radius} ${cy} c h`;
}
