// Bad use of the command: one line, exit status 2.

import { parseArgs, type ParseArgsConfig } from 'node:util';

export class UsageError extends Error {}

/** `parseArgs` whose complaints are usage errors. */
export function options<T extends ParseArgsConfig>(config: T): ReturnType<typeof parseArgs<T>> {
  try {
    return parseArgs(config);
  } catch (error) {
    const text = error instanceof Error ? error.message : String(error);
    throw new UsageError(text.split('. ')[0]!.replace(/\.$/, ''));
  }
}

/** A number of an option, within bounds. */
export function numberOf(text: string | undefined, name: string, low: number, high: number): number | undefined {
  if (text === undefined) return undefined;
  const value = Number(text);
  if (text.trim() === '' || !Number.isFinite(value) || value < low || value > high)
    throw new UsageError(`--${name} takes a number from ${low} to ${high}, got: ${text}`);
  return value;
}
