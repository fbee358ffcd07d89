// By how much something is held back that would flash too often.

/** The clock by which flashes are counted ahead, in beats a second. */
export const WATCHED_PACE = 2;

/** By what power of two something is slowed whose flashes would lie so closely, in seconds: it stays in time. */
export function slowedBy(span: number): number {
  return span >= 1 - 1e-6 ? 1 : 2 ** Math.ceil(-Math.log2(span) - 1e-6);
}
