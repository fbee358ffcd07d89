// Our look in numbers. Colour of light is never used as interface colour: one warm accent does all the calling.

export type Palette = {
  readonly ground: string;
  readonly raised: string;
  readonly sunken: string;
  readonly line: string;
  readonly text: string;
  readonly quiet: string;
  readonly faint: string;
  readonly doing: string;
  readonly onDoing: string;
  readonly doingText: string;
  readonly live: string;
  readonly warn: string;
  readonly fault: string;
  readonly well: string;
};

export const NIGHT: Palette = {
  ground: '#15121B',
  raised: '#201B29',
  sunken: '#1C1825',
  line: '#332C40',
  text: '#F5F0E8',
  quiet: '#A79FB4',
  faint: '#6E6680',
  doing: '#FF7A59',
  onDoing: '#221013',
  doingText: '#FF8F72',
  live: '#4CC9B0',
  warn: '#F2B84B',
  fault: '#FF6B72',
  well: '#2E2739',
};

/** Paper and ink; the signal colours darkened until they pass AA on paper. */
export const DAY: Palette = {
  ground: '#FAF6EF',
  raised: '#FFFFFF',
  sunken: '#F1EBE1',
  line: '#D9D0C4',
  text: '#221C2B',
  quiet: '#62586F',
  faint: '#948A9E',
  doing: '#FF7A59',
  onDoing: '#221013',
  doingText: '#B23A1B',
  live: '#0B7A66',
  warn: '#8A5A00',
  fault: '#B3202A',
  well: '#EAE2D6',
};

/** Eight hues of equal lightness for rehearsal marks: OKLCH (0.78, 0.10, n x 45) by night, (0.50, 0.11, n x 45) by day. */
export const TINTS_NIGHT = [
  '#F09CB4',
  '#EFA284',
  '#D6B069',
  '#A9C077',
  '#77CAA0',
  '#63C7CE',
  '#87BBEE',
  '#BEABEA',
] as const;
export const TINTS_DAY = [
  '#9A3F62',
  '#97481F',
  '#7C5B00',
  '#4F6C15',
  '#007449',
  '#00717A',
  '#2A639A',
  '#6B5197',
] as const;

export const RADIUS = { card: 14, button: 22, clip: 6 } as const;

export const FONTS = {
  heading: '"Bricolage Grotesque", system-ui, sans-serif',
  body: 'Figtree, system-ui, sans-serif',
  mono: '"Spline Sans Mono", ui-monospace, monospace',
} as const;
