import { SaxesParser } from 'saxes';
import { MailbagError } from '../errors/catalogue.js';
import type { ZipParts } from '../platform/ports.js';
import type { Attributes, Handlers } from './xml-handlers.js';
import { PartScanner } from './part-scanner.js';

type Decoder = new (label: string) => { decode(bytes?: Uint8Array, options?: { stream: boolean }): string };

export type { Attributes, Handlers };

/** Thrown by a handler that has seen enough. */
export class Enough extends Error {}

/** Deepest nesting of elements; a file that goes deeper is meant to break its reader. */
const DEEPEST = 200;

/** Runs XML through handlers, local names only. A doctype is refused, so that entities cannot grow. @throws MailbagError sheet-damaged */
export async function parseXml(
  chunks: AsyncIterable<Uint8Array> | Iterable<Uint8Array>,
  file: string,
  part: string,
  handlers: Handlers,
): Promise<void> {
  const parser = new SaxesParser({ position: false });
  const local = (name: string): string => name.slice(name.indexOf(':') + 1);
  const fail = (cause: unknown): never => {
    if (cause instanceof Enough || cause instanceof MailbagError) throw cause;
    throw new MailbagError('sheet-damaged', { file, part }, { cause });
  };
  let depth = 0;
  parser.on('doctype', () => fail(new Error('doctype')));
  parser.on('error', fail);
  parser.on('opentag', (tag) => {
    if (++depth > DEEPEST) fail(new Error('too deep'));
    handlers.open?.(local(tag.name), tag.attributes as Attributes);
  });
  parser.on('text', (text) => handlers.text?.(text));
  parser.on('cdata', (text) => handlers.text?.(text));
  parser.on('closetag', (tag) => {
    depth--;
    handlers.close?.(local(tag.name));
  });
  const decoder = new (globalThis as unknown as { TextDecoder: Decoder }).TextDecoder('utf-8');
  try {
    for await (const chunk of chunks) parser.write(decoder.decode(chunk, { stream: true }));
    parser.write(decoder.decode()).close();
  } catch (error) {
    if (!(error instanceof Enough)) fail(error);
  }
}

/** The same for a part of an office file. @throws MailbagError sheet-damaged */
export async function parsePart(zip: ZipParts, file: string, part: string, handlers: Handlers): Promise<void> {
  const scanner = new PartScanner(handlers, DEEPEST);
  let decoder: ReturnType<typeof decoderFor> | null = null;
  try {
    for await (const chunk of zip.read(part)) scanner.write((decoder ??= decoderFor(chunk)).decode(chunk, { stream: true }));
    scanner.write(decoder?.decode() ?? '');
    scanner.end();
  } catch (error) {
    if (error instanceof Enough) return;
    throw error instanceof MailbagError ? error : new MailbagError('sheet-damaged', { file, part }, { cause: error });
  }
}

/** Parts are in UTF-8 or UTF-16 (ECMA-376, part 2, 6.2.5). */
const decoderFor = ([a, b]: Uint8Array) =>
  new (globalThis as unknown as { TextDecoder: Decoder }).TextDecoder(
    (a === 0xff && b === 0xfe) || (a === 0x3c && b === 0)
      ? 'utf-16le'
      : (a === 0xfe && b === 0xff) || (a === 0 && b === 0x3c)
        ? 'utf-16be'
        : 'utf-8',
  );

/** An attribute by its local name. */
export const attribute = (attributes: Attributes, name: string): string | undefined =>
  attributes[name] ?? Object.entries(attributes).find(([key]) => key.endsWith(`:${name}`))?.[1];

/** Limits against files that unpack to more than a machine holds: bytes unpacked, and how many times larger than packed. */
export const UNPACKED_LIMIT = 600 * 1024 * 1024;
const RATIO_LIMIT = 300;

/** @throws MailbagError sheet-zip-bomb, by the directory alone */
export function refuseBombs(zip: ZipParts, file: string): void {
  const unpacked = zip.parts.reduce((sum, part) => sum + part.size, 0);
  const suspicious = zip.parts.some((part) => part.size > 20_000_000 && part.size > part.compressedSize * RATIO_LIMIT);
  if (unpacked > UNPACKED_LIMIT || suspicious) {
    const packed = zip.parts.reduce((sum, part) => sum + part.compressedSize, 0);
    throw new MailbagError('sheet-zip-bomb', {
      file,
      size: Math.round(unpacked / 1048576),
      times: Math.round(unpacked / Math.max(1, packed)),
    });
  }
}
