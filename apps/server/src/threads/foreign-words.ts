import type { BatchContext, SourceRecord } from '@mailbag/core';
import { SAMPLE_CODE, copiesFor, fillContext, rowReader, textsMade } from '@mailbag/core';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';

/** Words that are kept whole; of further ones only the characters are. */
const MOST_WORDS = 20_000;

/** Adds the words of a text that are not plain ASCII: faces are cut down to them, and a word with one foreign letter is drawn in one face. */
export function foreignWords(text: string, into: Set<string>): void {
  if (/^[\u0020-\u007e\s]*$/.test(text)) return;
  for (const word of text.split(/\s+/)) {
    if (/^[\u0020-\u007e]*$/.test(word)) continue;
    if (into.size < MOST_WORDS) into.add(word);
    else for (const char of word) into.add(char);
  }
}

/** Gathers the words that the copies of a mailing hold, record by record. */
export function wordsOf({ columns, templates }: FrozenMailing, batch: BatchContext, into: Set<string>): WordsOf {
  const maps = templates.map(({ map }) => map);
  const made = templates.map((template) => ({ template, texts: textsMade([template.map]) }));
  const read = rowReader(columns);
  return {
    ofRules: () => foreignWords(JSON.stringify(maps), into),
    ofRecord(record, ordinal) {
      for (const { text } of record.cells) foreignWords(text, into);
      const [row, context] = [read(record), fillContext(batch, ordinal, SAMPLE_CODE)];
      for (const { template, texts } of made)
        if (texts) for (const own of copiesFor(template, row, context)) for (const text of texts(own, context)) foreignWords(text, into);
    },
  };
}
interface WordsOf {
  ofRules(): void;
  ofRecord(record: SourceRecord, ordinal: number): void;
}

/** As it is kept with a batch. */
export const writeWords = (words: ReadonlySet<string>): string => [...words].join('\n');
export const readWords = (text: string): Set<string> => new Set(text === '' ? [] : text.split('\n'));
