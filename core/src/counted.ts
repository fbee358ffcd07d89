// Numbers in sentences.

/** Two digits behind the point at most. */
export const tidy = (number: number): string => String(Math.round(number * 100) / 100);

/** “1 bar”, “2 bars”, “0.5 bars”. */
export const counted = (number: number, word: string): string => `${tidy(number)} ${word}${number === 1 ? '' : 's'}`;
