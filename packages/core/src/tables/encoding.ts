import jschardet from 'jschardet';

/** What a host has under the name of TextDecoder (WHATWG Encoding). */
type Decoder = new (label: string, options?: { fatal?: boolean }) => { decode(bytes: Uint8Array): string };
/** @throws RangeError for an encoding that is not known */
export const decoder = (label: string, fatal = false): { decode(bytes: Uint8Array): string } =>
  new (globalThis as unknown as { TextDecoder: Decoder }).TextDecoder(label, { fatal });

/** Letters beyond ASCII that the languages of an encoding use most. Common practice, no source. */
const usual: Record<string, string> = {
  'windows-1252': 'äöüßéèêëàâáãçñóôõíìîúùûåøæœÄÖÜÉÈÀÇÑÓÅØÆ’“”„–€',
  'windows-1250': 'ąćęłńóśźżĄĆĘŁŃÓŚŹŻčďěňřšťůžýáíéúČĎĚŇŘŠŤŮŽőűăâîșțľĺŕđ’“”„–€äöüß',
  'windows-1251': 'абвгдежзийклмнопрстуфхцчшщъыьэюяіїєґАБВГДЕЖЗИКЛМНОПРСТУФХЦЧШЩЭЮЯІЇЄ№ё',
  'windows-1253': 'αβγδεζηθικλμνξοπρσςτυφχψωάέήίόύώΑΒΓΔΕΖΗΘΙΚΛΜΝΞΟΠΡΣΤΥΦΧΨΩΆΈΉΊΌΎΏ',
  'windows-1254': 'ğışçöüâîûĞİŞÇÖÜ',
  'windows-1255': 'אבגדהוזחטיכךלמםנןסעפףצץקרשת',
  'windows-1256': 'ابتثجحخدذرزسشصضطظعغفقكلمنهويىةءآأإؤئ',
  macintosh: 'äöüßéèêëàâáãçñóôõíìîúùûåøæÄÖÜÉ’“”–',
};
const letters = Object.fromEntries(Object.entries(usual).map(([label, text]) => [label, new Set(text)]));

/** How well a text reads: usual letters count for it, symbols and capitals in the midst of words against it. */
function plausibility(text: string, known: ReadonlySet<string>): number {
  let score = 0;
  for (let index = 0; index < text.length; index++) {
    const char = text[index]!;
    if (char.charCodeAt(0) < 0x80) continue;
    const before = text[index - 1] ?? ' ';
    const after = text[index + 1] ?? ' ';
    if (known.has(char)) score += 2;
    else if (/\p{L}/u.test(char)) score -= 1;
    else if (/\p{L}/u.test(before) || /\p{L}/u.test(after)) score -= 4;
    else if (char === '\ufffd' || /\p{C}/u.test(char)) score -= 6;
    if (/\p{Lu}/u.test(char) && /\p{Ll}/u.test(before)) score -= 4;
    // A letter of one script amid those of another.
    if (/[\p{sc=Cyrillic}\p{sc=Greek}\p{sc=Hebrew}\p{sc=Arabic}]/u.test(char) && (/[A-Za-z]/.test(before) || /[A-Za-z]/.test(after)))
      score -= 4;
  }
  return score;
}

const multibyte = new Set(['shift_jis', 'euc-jp', 'gb2312', 'gb18030', 'big5', 'euc-kr', 'iso-2022-jp']);

/** The encoding of a text that is no UTF, as its WHATWG label. Many bytes of a kind are the guess of jschardet; the one-byte encodings are weighed by their letters. */
export function guessEncoding(bytes: Uint8Array): string {
  let piece = '';
  for (const byte of bytes.subarray(0, 20_000)) piece += String.fromCharCode(byte);
  const detected = jschardet.detect(piece);
  const found = (detected.encoding ?? '').toLowerCase();
  if (multibyte.has(found) && detected.confidence > 0.8) {
    try {
      decoder(found).decode(bytes.subarray(0, 16));
      return found;
    } catch {
      // Not known to this host.
    }
  }
  let best = { label: 'windows-1252', score: -Infinity };
  for (const [label, known] of Object.entries(letters)) {
    const score = plausibility(decoder(label).decode(bytes), known);
    if (score > best.score) best = { label, score };
  }
  return best.label;
}
