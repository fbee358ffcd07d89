/** Words as they begin a sentence. */
export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
