/** How one language says yes and no. */
interface YesNo {
  yes: readonly string[];
  no: readonly string[];
}

/**
 * Yes and no as people write them and as spreadsheet programs save what is true and false, language by language, lower case; common practice, no source.
 * The first is understood everywhere.
 */
export const yesNoWords: readonly YesNo[] = [
  { yes: ['yes', 'y', 'true', '1', 'x'], no: ['no', 'n', 'false', '0'] },
  { yes: ['on', '✓', '✔', '☑', '☒'], no: ['off', '☐'] },
  { yes: ['ja', 'j', 'wahr'], no: ['nein', 'n', 'falsch'] },
  { yes: ['oui', 'o', 'vrai'], no: ['non', 'n', 'faux'] },
  { yes: ['sí', 'si', 's', 'verdadero'], no: ['no', 'n', 'falso'] },
  { yes: ['sì', 'si', 's', 'vero'], no: ['no', 'n', 'falso'] },
  { yes: ['tak', 't', 'prawda'], no: ['nie', 'n', 'fałsz'] },
  { yes: ['так', 'правда'], no: ['ні', 'неправда'] },
  { yes: ['да'], no: ['нет'] },
];
export const yesWords: ReadonlySet<string> = new Set(yesNoWords.flatMap(({ yes }) => yes));
export const noWords: ReadonlySet<string> = new Set(yesNoWords.flatMap(({ no }) => no));
