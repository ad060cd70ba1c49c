import jschardet from 'jschardet';

/** What a host has under the name of TextDecoder (WHATWG Encoding). */
type Decoder = new (label: string, options?: { fatal?: boolean }) => { decode(bytes: Uint8Array): string };

/** Upper halves of the code pages of DOS that TextDecoder does not have; older programs of offices still export in them. */
const dosPages: Readonly<Record<string, string>> = {
  ibm850:
    'ÇüéâäàåçêëèïîìÄÅÉæÆôöòûùÿÖÜø£Ø×ƒáíóúñÑªº¿®¬½¼¡«»░▒▓│┤ÁÂÀ©╣║╗╝¢¥┐└┴┬├─┼ãÃ╚╔╩╦╠═╬¤ðÐÊËÈıÍÎÏ┘┌█▄¦Ì▀ÓßÔÒõÕµþÞÚÛÙýÝ¯´\u00ad±‗¾¶§÷¸°¨·¹³²■\u00a0',
  ibm852:
    'ÇüéâäůćçłëŐőîŹÄĆÉĹĺôöĽľŚśÖÜŤťŁ×čáíóúĄąŽžĘę¬źČş«»░▒▓│┤ÁÂĚŞ╣║╗╝Żż┐└┴┬├─┼Ăă╚╔╩╦╠═╬¤đĐĎËďŇÍÎě┘┌█▄ŢŮ▀ÓßÔŃńňŠšŔÚŕŰýÝţ´\u00ad˝˛ˇ˘§÷¸°¨˙űŘř■\u00a0',
};
const dosDecoder = (upper: string) => ({
  decode: (bytes: Uint8Array): string =>
    Array.from(bytes, (byte) => (byte < 128 ? String.fromCharCode(byte) : upper[byte - 128]!)).join(''),
});

/** @throws RangeError for an encoding that is not known */
export const decoder = (label: string, fatal = false): { decode(bytes: Uint8Array): string } =>
  Object.hasOwn(dosPages, label)
    ? dosDecoder(dosPages[label]!)
    : new (globalThis as unknown as { TextDecoder: Decoder }).TextDecoder(label, { fatal });

/** Small letters beyond ASCII that languages write, by the one-byte encodings in which they are written. Capitals are those of the same letters. */
const alphabets: Record<string, readonly string[]> = {
  'windows-1252': ['äöüß', 'éèêëàâçîïôûùüœæ', 'áéíóúñü', 'ãõáéíóúâêôçà', 'åäöæøé', 'àèéìòù', 'áéíóúýþæöð', 'ëïéöüèáóú', 'äöüõšž'],
  'windows-1250': ['ąćęłńóśźż', 'áčďéěíňóřšťúůýž', 'áäčďéíľĺňóôŕšťúýž', 'áéíóöőúüű', 'ăâîșțşţ', 'čćđšž', 'äöüß'],
  'iso-8859-2': ['ąćęłńóśźż', 'áčďéěíňóřšťúůýž', 'áäčďéíľĺňóôŕšťúýž', 'áéíóöőúüű', 'ăâîşţ', 'čćđšž'],
  'windows-1257': ['āčēģīķļņšūž', 'ąčęėįšųūž', 'äöüõšž'],
  'windows-1251': ['абвгдежзийклмнопрстуфхцчшщъыьэюяё', 'абвгґдеєжзиіїйклмнопрстуфхцчшщьюя', 'абвгдђежзијклљмнњопрстћуфхцчџш'],
  'koi8-r': ['абвгдежзийклмнопрстуфхцчшщъыьэюяё'],
  'iso-8859-5': ['абвгдежзийклмнопрстуфхцчшщъыьэюяё'],
  ibm866: ['абвгдежзийклмнопрстуфхцчшщъыьэюяё'],
  'windows-1253': ['αβγδεζηθικλμνξοπρσςτυφχψωάέήίόύώϊϋΐΰ'],
  'iso-8859-7': ['αβγδεζηθικλμνξοπρσςτυφχψωάέήίόύώϊϋΐΰ'],
  'windows-1254': ['ğışçöüâîû'],
  'windows-1255': ['אבגדהוזחטיכךלמםנןסעפףצץקרשת'],
  'windows-1256': ['ابتثجحخدذرزسشصضطظعغفقكلمنهويىةءآأإؤئ'],
  ibm850: ['äöüß', 'éèêëàâçîïôûùü', 'áéíóúñü', 'åäöæøé', 'àèéìòù'],
  ibm852: ['ąćęłńóśźż', 'áčďéěíňóřšťúůýž', 'áéíóöőúüű', 'čćđšž', 'äöüß'],
  macintosh: ['äöüß', 'éèêëàâçîïôûùüœæ', 'áéíóúñü', 'åäöæøé'],
};
/** Letters of each alphabet, and signs that stand in texts of any language. */
const letters = Object.entries(alphabets).map(([label, languages]) => ({
  label,
  languages: languages.map(
    (small) => new Set([...small, ...(label === 'windows-1254' ? small.toLocaleUpperCase('tr') : small.toUpperCase())]),
  ),
}));
const SIGNS = new Set('’‘“”„«»–—…€§°№·');

/** How well a text reads in a language: its letters count for it, those of others, symbols and capitals in the midst of words against it. At most 1 a character. */
function plausibility(text: string, known: ReadonlySet<string>): number {
  let [score, count] = [0, 0];
  for (let index = 0; index < text.length; index++) {
    const char = text[index]!;
    if (char.charCodeAt(0) < 0x80) continue;
    count++;
    const before = text[index - 1] ?? ' ';
    const after = text[index + 1] ?? ' ';
    if (known.has(char)) score += 1;
    else if (SIGNS.has(char)) score += 0.3;
    else if (/\p{L}/u.test(char)) score -= 1;
    else if (/\p{L}/u.test(before) || /\p{L}/u.test(after)) score -= 2;
    else if (char === '\ufffd' || /\p{C}/u.test(char)) score -= 3;
    if (/\p{Lu}/u.test(char) && /\p{Ll}/u.test(before)) score -= 2;
    // A letter of one script amid those of another.
    if (/[\p{sc=Cyrillic}\p{sc=Greek}\p{sc=Hebrew}\p{sc=Arabic}]/u.test(char) && (/[A-Za-z]/.test(before) || /[A-Za-z]/.test(after)))
      score -= 2;
  }
  return count === 0 ? 0 : score / count;
}

/** An encoding of East Asia. */
interface Wide {
  label: string;
  /** Whether a pair of bytes is of the characters that are used most: the first level of the character set, kana, Hangul (by the sets' own layout). */
  isCommon(lead: number, trail: number): boolean;
  /** Characters of names, places and headings in its language. Common practice, no source. */
  words: ReadonlySet<string>;
}
const between =
  (low: number, high: number) =>
  (lead: number): boolean =>
    lead >= low && lead <= high;
const wides: readonly Wide[] = [
  {
    label: 'shift_jis',
    isCommon: (lead) => between(0x82, 0x83)(lead) || between(0x88, 0x97)(lead),
    words: new Set('氏名様住所電話番号都道府県市区町村丁目東京大阪田中山本川村木藤佐高日年月円金額合計会社部の株式井上小子郎太一二三'),
  },
  {
    label: 'euc-jp',
    isCommon: (lead) => between(0xa4, 0xa5)(lead) || between(0xb0, 0xcf)(lead),
    words: new Set('氏名様住所電話番号都道府県市区町村丁目東京大阪田中山本川村木藤佐高日年月円金額合計会社部の株式井上小子郎太一二三'),
  },
  {
    label: 'gb18030',
    isCommon: between(0xb0, 0xd7),
    words: new Set('姓名地址电话号码省市区县街道路北京上海广东王李张刘陈杨赵黄周吴小明华国中人年月日金额合计公司部职邮编性别男女学校'),
  },
  {
    label: 'big5',
    isCommon: between(0xa4, 0xc6),
    words: new Set('姓名地址電話號碼縣市區鄉鎮街路臺北高雄新竹王李張劉陳林黃吳蔡小明華國中人年月日金額合計公司部職郵編性別男女學校'),
  },
  {
    label: 'euc-kr',
    isCommon: between(0xb0, 0xc8),
    words: new Set('이름성명주소전화번호시도구군동로길서울부산대한김박최정강조윤장임금액합계회사부서년월일원학교남여'),
  },
];

/** Pairs of bytes of which the first is none of ASCII. */
function* pairsOf(bytes: Uint8Array): Generator<[number, number]> {
  for (let at = 0; at + 1 < bytes.length; at++) if (bytes[at]! >= 0x80) yield [bytes[at]!, bytes[++at]!];
}

/** How well bytes read as an encoding of East Asia, at most 1; -1: they cannot be it. */
function wideScore(bytes: Uint8Array, { label, isCommon, words }: Wide, isDetected: boolean): number {
  let text: string;
  try {
    text = decoder(label, true).decode(bytes);
  } catch {
    return -1;
  }
  let [pairs, common] = [0, 0];
  for (const [lead, trail] of pairsOf(bytes)) {
    pairs++;
    if (isCommon(lead, trail)) common++;
  }
  if (pairs === 0) return -1;
  const wide = Array.from(text).filter((char) => char.charCodeAt(0) > 0x7f);
  const known = wide.filter((char) => words.has(char)).length / wide.length;
  // What cannot be said in the language's usual characters at all is some other text that happens to come out even.
  return 0.5 * (common / pairs) + Math.min(0.5, 1.6 * known) + (isDetected ? 0.1 : 0);
}

/** Bytes that are enough to tell an encoding. */
const SAMPLE = 60_000;

/** The beginning of a text, up to a line's end, so that no character is cut through. */
function sampleOf(bytes: Uint8Array): Uint8Array {
  if (bytes.length <= SAMPLE) return bytes;
  const end = bytes.lastIndexOf(0x0a, SAMPLE);
  return bytes.subarray(0, end > 0 ? end : SAMPLE);
}

/** The encoding of a text that is no UTF, as its WHATWG label: that in which it reads best, by the letters and words of the languages written in it. */
export function guessEncoding(whole: Uint8Array): string {
  const bytes = sampleOf(whole);
  let piece = '';
  for (const byte of bytes.subarray(0, 20_000)) piece += String.fromCharCode(byte);
  const detected = (jschardet.detect(piece).encoding ?? '').toLowerCase().replace('gb2312', 'gb18030');
  if (detected === 'iso-2022-jp') return detected;
  let best = { label: 'windows-1252', score: -Infinity };
  for (const { label, languages } of letters) {
    const text = decoder(label).decode(bytes);
    for (const known of languages) {
      const score = plausibility(text, known);
      if (score > best.score + 1e-9) best = { label, score };
    }
  }
  for (const wide of wides) {
    const score = wideScore(bytes, wide, detected === wide.label);
    if (score > best.score) best = { label: wide.label, score };
  }
  return best.label;
}
