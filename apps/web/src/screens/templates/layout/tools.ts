import { t } from '@mailbag/core/words';
import type { Drawn, DrawnKind, SeenBox, Stamp, Symbology } from '@mailbag/core';
import { drawnField, ownBox } from '@mailbag/core';
import type { PageSize } from '@mailbag/core';
import type { LucideIcon } from 'lucide-react';
import {
  AlignLeft,
  Calendar,
  CircleDot,
  Hash,
  Image,
  ListChecks,
  PenLine,
  QrCode,
  RectangleEllipsis,
  SquareCheck,
  SquareChevronDown,
  Type,
} from 'lucide-react';

/** What can be drawn: a kind of field, a symbol of the copy code, or a line of text. */
export type DrawTool = DrawnKind | Symbology | 'line';
/** With the tools of the hand: choosing, and taking blanks by area. */
export type Tool = 'select' | 'take' | DrawTool;

interface ToolFacts {
  /** On the button, and of the row in the list. */
  word: string;
  icon: LucideIcon;
  /** Points: what it is where it is only clicked into place. */
  width: number;
  height: number;
}

export const toolFacts: Record<DrawTool, ToolFacts> = {
  text: { word: t`Text`, icon: Type, width: 150, height: 16 },
  multiline: { word: t`Lines`, icon: AlignLeft, width: 220, height: 60 },
  comb: { word: t`Comb`, icon: RectangleEllipsis, width: 144, height: 18 },
  checkbox: { word: t`Tick`, icon: SquareCheck, width: 12, height: 12 },
  radio: { word: t`One of`, icon: CircleDot, width: 12, height: 12 },
  menu: { word: t`Menu`, icon: SquareChevronDown, width: 120, height: 16 },
  list: { word: t`List`, icon: ListChecks, width: 120, height: 60 },
  date: { word: t`Date`, icon: Calendar, width: 90, height: 16 },
  signature: { word: t`Signature`, icon: PenLine, width: 160, height: 36 },
  image: { word: t`Picture`, icon: Image, width: 90, height: 110 },
  qr: { word: t`QR code`, icon: QrCode, width: 62, height: 62 },
  datamatrix: { word: t`Data Matrix`, icon: QrCode, width: 50, height: 50 },
  code128: { word: t`Code 128`, icon: QrCode, width: 170, height: 24 },
  line: { word: t`Line of text`, icon: Hash, width: 180, height: 9.3 },
};

export const fieldTools = [
  'text',
  'multiline',
  'comb',
  'checkbox',
  'radio',
  'menu',
  'date',
  'signature',
  'image',
] as const satisfies DrawTool[];
export const stampTools = ['qr', 'datamatrix', 'code128', 'line'] as const satisfies DrawTool[];
export const isStampTool = (tool: Tool): tool is (typeof stampTools)[number] => stampTools.some((one) => one === tool);

/** The tool with which something was drawn, for its icon and its word. */
export const toolOf = (drawn: Drawn): DrawTool =>
  drawn.what === 'field' ? drawn.field.kind : drawn.stamp.kind === 'line' ? 'line' : drawn.stamp.symbology;

/** What a person calls something that is drawn. */
export const drawnLabel = (drawn: Drawn): string => {
  if (drawn.what === 'field') return drawn.field.label ?? drawn.field.name;
  return drawn.stamp.kind === 'line' ? drawn.stamp.text : t`Copy code, ${toolFacts[drawn.stamp.symbology].word}`;
};

/** Something new in a box. @param blank what is printed where it stands, if a blank was found there */
export function newDrawn(
  tool: DrawTool,
  key: string,
  page: number,
  box: SeenBox,
  size: PageSize,
  blank: { name: string; label: string | null } | null,
): Drawn {
  const [width, height] = [box.right - box.left, box.bottom - box.top];
  if (tool === 'line') {
    const line: Stamp = {
      kind: 'line',
      text: t`Copy {{ number }} of {{ count }}`,
      page,
      x: box.left,
      y: size.height - box.bottom + 2.1,
      width,
      size: 10,
      align: 'left',
    };
    return { key, what: 'stamp', stamp: line };
  }
  if (isStampTool(tool)) {
    const side = Math.min(width, height);
    const symbol = tool === 'code128' ? { width, height } : { width: side, height: side };
    const foot = tool === 'code128' ? box.bottom : box.top + side;
    return {
      key,
      what: 'stamp',
      stamp: { kind: 'code', symbology: tool, page, x: box.left, y: size.height - foot, ...symbol, inPrint: true },
    };
  }
  const isChoice = tool === 'menu' || tool === 'list';
  return {
    key,
    what: 'field',
    field: drawnField({
      name: blank?.name ?? (tool === 'checkbox' ? 'tick' : tool === 'radio' ? 'one_of' : tool),
      kind: tool,
      page,
      rect: ownBox(box, size),
      label: blank?.label ?? null,
      cells: tool === 'comb' ? Math.max(1, Math.round(width / 18)) : null,
      size: tool === 'text' || tool === 'date' || tool === 'menu' ? 10 : 0,
      options: isChoice ? [t`First`, t`Second`].map((word) => ({ value: word, label: word })) : [],
    }),
  };
}
