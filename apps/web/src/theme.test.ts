import { color, tones } from './theme';

/** Relative luminance and contrast of two colours (WCAG 2.2, “relative luminance” and “contrast ratio”). */
function luminance(hex: string): number {
  const [red, green, blue] = [1, 3, 5].map((at) => {
    const value = Number.parseInt(hex.slice(at, at + 2), 16) / 255;
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}
function contrast(a: string, b: string): number {
  const [high, low] = [luminance(a), luminance(b)].sort((one, other) => other - one) as [number, number];
  return (high + 0.05) / (low + 0.05);
}

test('the measure is right: black on white is 21, a colour on itself is 1', () => {
  expect([contrast('#000000', '#FFFFFF'), contrast('#6A2C50', '#6A2C50')]).toEqual([21, 1]);
});

// WCAG 2.2, 1.4.3: 4.5 for text.
test.each(Object.entries(tones))('a word of the tone %s can be read on its wash, on paper and on a sheet', (_, { ink, wash }) => {
  for (const ground of [wash, color.paper, color.sheet]) expect(contrast(ink, ground)).toBeGreaterThanOrEqual(4.5);
});
test.each(['ink', 'faded', 'plum'] as const)('%s can be read on everything that text stands on', (name) => {
  for (const ground of ['paper', 'sheet', 'kraft', 'plumWash', 'ground'] as const)
    expect([ground, contrast(color[name], color[ground]) >= 4.5]).toEqual([ground, true]);
});
test('the button that goes ahead can be read, pointed at and switched off', () => {
  for (const ground of [color.plum, color.plumDark, color.slate]) expect(contrast(color.sheet, ground)).toBeGreaterThanOrEqual(4.5);
});
test('tones can be told apart by their washes only together with their words: none is meant to stand by itself', () => {
  expect(new Set(Object.values(tones).map(({ ink }) => ink)).size).toBe(Object.keys(tones).length);
});
