// Which screens hold something that ends with them.

import type { LiveState } from '../live';

/** Whether a screen keeps looks, notes, channels or a test on only as long as it is there. */
export const holds = ({ standing, sounding, held, test }: LiveState, screen: string): boolean =>
  standing.some(({ holders }) => holders?.includes(screen)) ||
  sounding.some(({ by, lifted }) => by === screen && lifted === undefined) ||
  held.some(({ by }) => by === screen) ||
  test?.by === screen;

/** Screens that hold something, or by which one programs. */
export function holdersIn({ standing, sounding, held, test, programs }: LiveState): readonly string[] {
  const sounds = sounding.filter(({ lifted }) => lifted === undefined).map(({ by }) => by);
  const holders = standing.flatMap((one) => one.holders ?? []);
  return [
    ...new Set([
      ...holders,
      ...sounds,
      ...held.flatMap(({ by }) => by ?? []),
      ...(test ? [test.by] : []),
      ...(programs ? [programs] : []),
    ]),
  ];
}
