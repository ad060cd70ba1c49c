/** Everything about how Mailbag looks that is a value. No component has a colour of its own. */
export const color = {
  paper: '#FAF7F0',
  sheet: '#FFFFFF',
  kraft: '#EEE5D3',
  kraftDeep: '#E2D6BE',
  ground: '#E9E3D6',
  ink: '#22303C',
  faded: '#566370',
  line: '#D8D0BF',
  hair: '#E8E1D2',
  plum: '#6A2C50',
  plumDark: '#4E1F3B',
  plumWash: '#F4E9EF',
  moss: '#3F6B35',
  mossWash: '#E9F0E4',
  ochre: '#8A5A00',
  ochreWash: '#FAF0DA',
  brick: '#9B2C1F',
  brickWash: '#F9E6E2',
  slate: '#4A5A6A',
  slateWash: '#E8ECEF',
  lagoon: '#0F6570',
  lagoonWash: '#E0F0F1',
} as const;

export type Tone = 'plain' | 'plum' | 'moss' | 'ochre' | 'brick' | 'slate' | 'lagoon';
export const tones: Record<Tone, { ink: string; wash: string }> = {
  plain: { ink: color.faded, wash: color.paper },
  plum: { ink: color.plum, wash: color.plumWash },
  moss: { ink: color.moss, wash: color.mossWash },
  ochre: { ink: color.ochre, wash: color.ochreWash },
  brick: { ink: color.brick, wash: color.brickWash },
  slate: { ink: color.slate, wash: color.slateWash },
  lagoon: { ink: color.lagoon, wash: color.lagoonWash },
};

export const font = {
  text: "'Atkinson Hyperlegible Next Variable', sans-serif",
  head: "'Zilla Slab', serif",
  mono: "'Atkinson Hyperlegible Mono Variable', monospace",
};
export const radius = '6px';
export const shadow = '0 6px 24px rgba(34, 48, 60, 0.22)';
export const motion = '140ms ease-out';

/** Narrower than this, or as much as zoomed, places stand in a menu and panes behind each other (WCAG 2.2, 1.4.10). */
const NARROW = 1023;
export const narrowQuery = `(max-width: ${NARROW}px)`;
/** For what is laid out otherwise there. */
export const narrow = `@media ${narrowQuery}`;
