/**
 * Words that mean the same in headings and on forms, in languages of Europe; the first stands for all of them. Without accents, as they are compared.
 * Common practice, no source.
 */
const SAME: readonly (readonly string[])[] = [
  ['surname', 'lastname', 'familyname', 'family', 'nachname', 'familienname', 'zuname', 'apellido', 'apellidos', 'cognome', 'nazwisko'],
  ['firstname', 'forename', 'givenname', 'given', 'first', 'vorname', 'vornamen', 'rufname', 'prenom', 'prenoms', 'imie', 'imiona'],
  ['name', 'nom', 'nombre', 'nome'],
  ['email', 'mail', 'courriel', 'mel'],
  ['phone', 'telephone', 'tel', 'mobile', 'telefon', 'handy', 'mobil', 'telefono', 'movil', 'cellulare', 'komorka'],
  ['postcode', 'zip', 'postal', 'plz', 'postleitzahl'],
  ['birth', 'born', 'dob', 'birthday', 'geburt', 'geboren', 'geb', 'naissance', 'nacimiento', 'nascita', 'urodzenia'],
  ['number', 'no', 'nr', 'num', 'id', 'nummer', 'numero', 'numer'],
  [
    'street',
    'address',
    'addr',
    'straße',
    'strasse',
    'anschrift',
    'adresse',
    'rue',
    'calle',
    'direccion',
    'domicilio',
    'indirizzo',
    'ulica',
  ],
  ['city', 'town', 'place', 'ort', 'stadt', 'wohnort', 'ville', 'ciudad', 'localidad', 'citta', 'comune', 'miasto', 'miejscowosc'],
  ['country', 'staat'],
  ['start', 'from', 'begin', 'since', 'beginn', 'anfang', 'ab', 'von', 'seit', 'debut', 'desde'],
  ['end', 'until', 'till', 'ende', 'bis', 'hasta'],
  ['date', 'datum', 'fecha'],
  ['amount', 'betrag', 'montant', 'importe', 'importo', 'kwota'],
  ['account', 'konto', 'compte', 'cuenta'],
  ['holder', 'inhaber', 'inhaberin', 'titulaire', 'titular', 'intestatario'],
  ['bank', 'kreditinstitut', 'geldinstitut', 'banque', 'banco', 'banca'],
  ['house', 'haus'],
  ['nationality', 'citizenship', 'staatsangehorigkeit', 'nationalitat', 'nationalite', 'nacionalidad', 'cittadinanza', 'obywatelstwo'],
  ['occupation', 'profession', 'job', 'beruf', 'profesion', 'professione', 'zawod'],
  ['sex', 'gender', 'geschlecht', 'sexe', 'sexo', 'sesso', 'płec'],
  ['class', 'klasse', 'classe', 'clase', 'klasa'],
  ['remarks', 'comments', 'notes', 'bemerkung', 'bemerkungen', 'anmerkung', 'anmerkungen', 'remarques', 'observaciones', 'uwagi'],
  ['member', 'mitglied', 'membre', 'miembro'],
  ['tenant', 'mieter', 'mieterin', 'pachter', 'pachterin', 'locataire', 'inquilino'],
  ['applicant', 'antragsteller', 'antragstellerin', 'bewerber', 'bewerberin', 'demandeur', 'solicitante'],
  ['recipient', 'empfanger', 'empfangerin', 'destinataire', 'destinatario'],
  ['child', 'kind', 'kinde', 'enfant', 'nino', 'dziecko'],
  ['student', 'pupil', 'schuler', 'schulerin', 'eleve', 'alumno', 'alumna'],
];
const first = new Map(SAME.flatMap((group) => group.map((word) => [word, group[0]!] as const)));

/** The word for which an abbreviation stands, if all that begin so mean the same; else what was there. */
function unabbreviated(text: string, begin: string): string {
  const meant = new Set([...first].flatMap(([word, stands]) => (word.startsWith(begin.toLowerCase()) ? [stands] : [])));
  return meant.size === 1 ? ` ${[...meant].join('')} ` : text;
}

/** Words that say nothing of what is asked. */
const NOISE = new Set(
  [
    'the of a your please enter field text txt subform topmostsubform page page1 page2 form in and',
    'der die das des dem am und bitte ihr ihre eingeben feld seite',
    'de la le les du et el los las y di della',
  ].flatMap((line) => line.split(' ')),
);

/** Words that are another's only where nothing stands beside them: “land” is a country in a German heading, and none in “area of land”. */
const ALONE = new Map([
  ['land', 'country'],
  ['pays', 'country'],
  ['pais', 'country'],
  ['paese', 'country'],
  ['kraj', 'country'],
  ['data', 'date'],
  ['cap', 'postcode'],
]);

/** Several words that are one. */
const ONE: readonly (readonly [RegExp, string])[] = [
  [/\b(?:e[ -]?mail(?:[ -]*add?ress(?:en?)?)?|mail[ -]*add?ress(?:en?)?|correo electronico|adresse (?:electronique|mel))\b/gi, 'email'],
  [/\b(last|family|first|given|fore)[ -]+names?\b/gi, '$1name'],
  [/\bnom de famille\b/gi, 'surname'],
  // A street with its number is where one lives; a street number alone is another thing.
  [
    /\b(street|address|straße|strasse|anschrift|rue|calle|ulica)(?: ?[,/&+] ?| (?:and|und|u\.|et|y|i) )(?:haus|house)?[ -]?(?:nummer|number|nr|no|numero)\b/gi,
    '$1',
  ],
  [/\b(straße|strasse|anschrift) ?(?:haus)?(?:nummer|nr)\b/gi, '$1'],
  [/\b(?:zip|post|postal)[ -]*code\b|\bcode postal\b|\bcodigo postal\b|\bcodice postale\b|\bkod pocztowy\b/gi, 'postcode'],
];

/** Ends of German words that say what kind of thing it is; what stands before them says of what. */
const ENDS: readonly (readonly [end: string, word: string])[] = [
  ['nummer', 'number'],
  ['nr', 'number'],
  ['datum', 'date'],
  ['inhaberin', 'holder'],
  ['inhaber', 'holder'],
  ['ort', 'city'],
  ['name', 'name'],
];

/** A word that is known, or a German compound of one and an end, as the words that stand for them; null: it is neither. */
function known(word: string): string[] | null {
  if (first.has(word)) return [first.get(word)!];
  for (const [end, kind] of ENDS) {
    if (!word.endsWith(end)) continue;
    const stem = word.slice(0, -end.length).replace(/s$/, '');
    if (first.has(stem)) return [first.get(stem)!, kind];
    if (end === 'nummer' && stem.length > 2) return [stem, kind];
  }
  return null;
}
const folded = (text: string): string => text.normalize('NFKD').replace(/\p{Mn}/gu, '');
/** Whether headings often have this word, or one that means the same. */
export const isCommonWord = (word: string): boolean => known(folded(word).toLowerCase()) !== null;

/** A genitive or a plural is its word. */
const partsOf = (word: string): string[] =>
  known(word) ?? (word.length > 4 && word.endsWith('s') ? known(word.slice(0, -1)) : null) ?? [word];

/**
 * The words of a heading, a label or the name of a field by which it is compared with others: lower case, without accents, without what says nothing, and those
 * that mean the same as one word.
 */
export function headingWords(text: string): string[] {
  let plainText = folded(text)
    .replace(/\[\d+\]|_|\s+/g, ' ')
    .replace(/([\p{Ll}\d])(\p{Lu})/gu, '$1 $2');
  for (const [several, one] of ONE) plainText = plainText.replace(several, one);
  const words = plainText
    .replace(/(?<!\p{L})(\p{L}{4,}|str)\.(?!\p{L})/giu, unabbreviated)
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word && !NOISE.has(word));
  return words.length === 1 && ALONE.has(words[0]!) ? [ALONE.get(words[0]!)!] : words.flatMap(partsOf);
}
