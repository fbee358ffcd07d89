// Tamagui with our own tokens and nothing else.

import { createFont, createTamagui, createTokens } from '@tamagui/core';
import { DAY, FONTS, NIGHT, RADIUS } from './tokens';

const sizes = { 1: 12, 2: 13, 3: 15, 4: 16, 5: 22, 6: 26, 7: 31, true: 15 };
const lines = { 1: 16, 2: 18, 3: 20, 4: 20, 5: 28, 6: 30, 7: 36, true: 20 };
const steps = { 0: 0, 1: 4, 2: 8, 3: 12, 4: 16, 5: 20, 6: 24, 8: 32, 11: 44, true: 16 };

const font = (family: string, weight: string) =>
  createFont({
    family,
    size: sizes,
    lineHeight: lines,
    weight: { 1: weight, true: weight },
    letterSpacing: { 1: 0, true: 0 },
  });

export const config = createTamagui({
  fonts: { heading: font(FONTS.heading, '650'), body: font(FONTS.body, '400'), mono: font(FONTS.mono, '500') },
  tokens: createTokens({
    size: steps,
    space: steps,
    radius: { 0: 0, clip: RADIUS.clip, card: RADIUS.card, button: RADIUS.button, true: RADIUS.card },
    zIndex: { 0: 0, 1: 10, 2: 20, true: 0 },
    color: {},
  }),
  // The library writes its style sheet only for themes of these two names.
  themes: { dark: { ...NIGHT }, light: { ...DAY } },
  media: {
    wide: { minWidth: 900, minHeight: 481 },
    short: { maxHeight: 720 },
    // A phone that lies on its side: what stands above and below one another has no room.
    flat: { minWidth: 560, maxHeight: 480 },
    narrow: { maxWidth: 374 },
  },
  defaultFont: 'body',
  settings: { onlyAllowShorthands: false, fastSchemeChange: false },
});

type Config = typeof config;
declare module '@tamagui/core' {
  // Tamagui reads its own configuration's type from here.
  // oxlint-disable-next-line typescript/no-empty-object-type -- an interface is what the library augments
  interface TamaguiCustomConfig extends Config {}
}
