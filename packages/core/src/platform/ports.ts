/** What a host (server, worker thread, browser) must supply to core. */

/** One glyph of a shaped run. Advances and offsets in font units. `cluster` is the index of the character (UTF-16) it stands for. */
export interface ShapedGlyph {
  glyph: number;
  cluster: number;
  advance: number;
  dx: number;
  dy: number;
}

/** A face ready to measure and shape with. */
export interface ShapingFace {
  /** Units of the em square. */
  readonly unitsPerEm: number;
  /** In font units; descender is negative. */
  readonly ascender: number;
  readonly descender: number;
  /** The glyph of U+200B, where the face has one that draws nothing and is not wide. */
  readonly silent: number | undefined;
  covers(codePoint: number): boolean;
  /** How far a glyph's ink reaches above and below the baseline (positive: downwards), in font units; 0 and 0 when it has none. */
  ink(glyph: number): { top: number; bottom: number };
  /** A glyph's outline as path operators (ISO 32000-2, 8.5.2) in font units, without painting it; empty when it draws nothing. */
  outline(glyph: number): string;
  /** Shapes one run of one direction. Glyphs come in visual order. */
  shape(text: string, direction: 'ltr' | 'rtl'): ShapedGlyph[];
}

/** Shaping and subsetting, over HarfBuzz. */
export interface FontEngine {
  openFace(bytes: Uint8Array): ShapingFace;
  /** The face with only what `codePoints` need; glyph numbers stay as they are. */
  subset(bytes: Uint8Array, codePoints: Iterable<number>): Uint8Array;
}

/** A bundled face: its name as it appears in copies, and its bytes (TrueType). Earlier faces are preferred. */
export interface FaceFile {
  name: string;
  bytes: Uint8Array;
}

/** The parts of a zip file, without reading them. Sizes in bytes from the central directory. */
export interface ZipParts {
  parts: { name: string; size: number; compressedSize: number }[];
  read(name: string): AsyncIterable<Uint8Array>;
}

/** Digests and AES, as protected copies need them. */
export interface Ciphers {
  /** SHA-256, SHA-384 or SHA-512 over the parts one after the other. */
  digest(bits: 256 | 384 | 512, ...parts: Uint8Array[]): Uint8Array;
  /** HMAC with SHA-256. */
  hmac(key: Uint8Array, ...parts: Uint8Array[]): Uint8Array;
  /** AES-128 or AES-256 by the length of the key, CBC. Null for the initialisation vector: zeros. Encrypts whole blocks of 16 bytes; what is decrypted has them unless it `isPadded`. */
  encryptCbc(key: Uint8Array, iv: Uint8Array | null, data: Uint8Array): Uint8Array;
  /** AES-256, CBC, with padding (RFC 8018, 6.1.1): parts that stand one after the other, so that large data is not copied to be joined. */
  encryptPadded(key: Uint8Array, iv: Uint8Array, data: Uint8Array): Uint8Array[];
  decryptCbc(key: Uint8Array, iv: Uint8Array | null, data: Uint8Array, isPadded: boolean): Uint8Array;
  /** AES-256, ECB: each block of 16 bytes by itself. */
  encryptBlock(key: Uint8Array, blocks: Uint8Array): Uint8Array;
}
