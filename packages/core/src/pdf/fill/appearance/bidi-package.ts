import bidiFactory from 'bidi-js';

/** The package's types do not say that the module is the function. */
export const bidi = (
  bidiFactory as unknown as () => {
    getEmbeddingLevels(text: string): { levels: Uint8Array; paragraphs: { level: number }[] };
    getMirroredCharacter(char: string): string | null;
    /** Short name of the class of one character (UAX #9, table 4). */
    getBidiCharTypeName(char: string): string;
  }
)();
