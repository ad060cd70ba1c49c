/** What a DA string asks for (ISO 32000-2, 12.7.4.3). */
export interface DefaultAppearance {
  /** Resource name of the font, without its slash. */
  font: string;
  /** Points; 0: as large as fits. */
  size: number;
  /** Horizontal scaling (ISO 32000-2, 9.3.4), 1: none. */
  scale: number;
  /** Colour operators as they are to be written, such as `0 g`. */
  colour: string;
}

/** Reads a DA string; what it does not say is black Helvetica of automatic size. */
export function parseDefaultAppearance(text: string | undefined): DefaultAppearance {
  const result: DefaultAppearance = { font: 'Helv', size: 0, scale: 1, colour: '0 g' };
  const operands: string[] = [];
  for (const token of (text ?? '').match(/\/[^\s/[\]()<>]+|[^\s/[\]()<>]+/g) ?? []) {
    if (token === 'Tf') {
      const [font, size] = operands.slice(-2);
      if (font?.startsWith('/')) result.font = font.slice(1);
      const points = Math.abs(Number(size));
      if (Number.isFinite(points)) result.size = points;
      operands.length = 0;
    } else if (token === 'Tz') {
      const percent = Number(operands.at(-1));
      if (percent > 0 && percent <= 1000) result.scale = percent / 100;
      operands.length = 0;
    } else if (token === 'g' || token === 'rg' || token === 'k') {
      const count = token === 'g' ? 1 : token === 'rg' ? 3 : 4;
      const numbers = operands.slice(-count);
      if (numbers.length === count && numbers.every((one) => Number.isFinite(Number(one)))) result.colour = `${numbers.join(' ')} ${token}`;
      operands.length = 0;
    } else operands.push(token);
  }
  return result;
}
