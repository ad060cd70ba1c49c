import { nearestStandardFace, noTraits } from './nearest-face.js';

// Names as producers write them. Families, weights and slopes are those of the type foundries' own catalogues (from memory).
test.each([
  ['Helvetica', 'Helvetica'],
  ['Helv', 'Helvetica'],
  ['HeBo', 'Helvetica-Bold'],
  ['HelveticaNeueLTStd-Roman', 'Helvetica'],
  ['HelveticaNeueLTStd-Bd', 'Helvetica-Bold'],
  ['HelveticaNeueLTStd-BdIt', 'Helvetica-BoldOblique'],
  ['HelveticaNeueLTStd-It', 'Helvetica-Oblique'],
  ['HelveticaNeueLTStd-Md', 'Helvetica'],
  ['HelveticaNeueLTStd-Blk', 'Helvetica-Bold'],
  ['HelveticaNeueLTStd-HvCn', 'Helvetica-Bold'],
  ['HelveticaNeueLT-Light', 'Helvetica'],
  ['FranklinGothic-Book', 'Helvetica'],
  ['FranklinGothic-BookOblique', 'Helvetica-Oblique'],
  ['FrutigerLTStd-Black', 'Helvetica-Bold'],
  ['AvenirNext-DemiBoldItalic', 'Helvetica-BoldOblique'],
  ['ABCDEF+MyriadPro-Semibold', 'Helvetica-Bold'],
  ['Arial,Bold', 'Helvetica-Bold'],
  ['Arial-BoldItalicMT', 'Helvetica-BoldOblique'],
  ['ArialNarrow-Italic', 'Helvetica-Oblique'],
  ['CenturyGothic', 'Helvetica'],
  ['GillSans-Bold', 'Helvetica-Bold'],
  ['TimesNewRomanPSMT', 'Times-Roman'],
  ['TimesNewRomanPS-BoldItalicMT', 'Times-BoldItalic'],
  ['TiBI', 'Times-BoldItalic'],
  ['MinionPro-It', 'Times-Italic'],
  ['NewCenturySchlbk-Roman', 'Times-Roman'],
  ['GaramondPremrPro-Med', 'Times-Roman'],
  ['BookmanOldStyle,Italic', 'Times-Italic'],
  ['LiberationSerif-Bold', 'Times-Bold'],
  ['CourierNewPS-BoldMT', 'Courier-Bold'],
  ['LiberationMono', 'Courier'],
  ['Consolas-Italic', 'Courier-Oblique'],
  ['CoBO', 'Courier-BoldOblique'],
])('%s is drawn with %s', (name, expected) => {
  expect(nearestStandardFace(name).baseFont).toBe(expected);
});

/** PANOSE of Times New Roman Bold and of Arial (OpenType tables of those fonts, from memory). */
const [SERIF_BOLD, SANS] = [
  [2, 2, 8, 3, 7, 5, 5, 2, 3, 4],
  [2, 11, 6, 4, 2, 2, 2, 2, 2, 4],
];
test.each([
  ['fixed pitch', { flags: 33 }, 'Courier'],
  ['serifs', { flags: 34 }, 'Times-Roman'],
  ['serifs and a slope', { flags: 98, slant: -12 }, 'Times-Italic'],
  ['forced bold', { flags: 262_176 }, 'Helvetica-Bold'],
  ['a weight of 700', { flags: 32, weight: 700 }, 'Helvetica-Bold'],
  ['a weight of 500', { flags: 32, weight: 500 }, 'Helvetica'],
  ['PANOSE of a bold face with serifs', { flags: 4, panose: SERIF_BOLD }, 'Times-Bold'],
  ['PANOSE without serifs, whatever the flags say', { flags: 34, panose: SANS }, 'Helvetica'],
  ['nothing', {}, 'Helvetica'],
])('a font of an unknown name with %s', (_, traits, expected) => {
  expect(nearestStandardFace('Xyzzy', { ...noTraits, ...traits }).baseFont).toBe(expected);
});
