// Numbers in sentences.

/** Two digits behind the point at most. */
export const tidy = (number: number): string => String(Math.round(number * 100) / 100);

/** The first five names and how many more there are: “a.png, b.txt and 3 more”. */
export const someOf = (names: readonly string[]): string =>
  names.slice(0, 5).join(', ') + (names.length > 5 ? ` and ${names.length - 5} more` : '');

/** “1 bar”, “2 bars”, “0.5 bars”. */
export const counted = (number: number, word: string): string => `${tidy(number)} ${word}${number === 1 ? '' : 's'}`;
