// Undo and redo of one person: each step takes back just what it changed, whatever others did meanwhile.

import { z } from 'zod';
import { inverse, OpsShape, type Ops } from '../change';
import { nameOf, type Command, type Edited } from './edits';
import type { Outcome } from './copy';

/** One act: its change's id, what it is called, and what it changed. */
const Step = z.strictObject({ id: z.string(), of: z.string(), ops: OpsShape });
export type Step = z.infer<typeof Step>;

export const History = z.strictObject({ past: z.array(Step), future: z.array(Step) });
export type History = { readonly past: readonly Step[]; readonly future: readonly Step[] };

export const NO_HISTORY: History = { past: [], future: [] };

const DEEPEST = 200;

/** After an act of this person. */
export function acted({ past }: History, id: string, command: Command, { ops }: Edited): History {
  const step: Step = { id, of: nameOf(command), ops: [...ops] };
  return { past: [...past, step].slice(-DEEPEST), future: [] };
}

/**
 * The command that takes back the newest step, or the one of that id, wherever it lies; undefined where there is none.
 * @param id of the new change, by which redo knows it again.
 */
export function undoing(
  history: History,
  id: string,
  wanted?: string,
): { readonly command: Command; readonly history: History } | undefined {
  const step = wanted === undefined ? history.past.at(-1) : history.past.find((one) => one.id === wanted);
  if (!step) return undefined;
  const ops = inverse(step.ops);
  return {
    command: { type: 'adjust', of: step.of, ops: [...ops] },
    history: {
      past: history.past.filter((one) => one !== step),
      future: [...history.future, { id, of: step.of, ops: [...ops] }],
    },
  };
}

/** The command that does again what was taken back last. */
export function redoing(
  history: History,
  id: string,
): { readonly command: Command; readonly history: History } | undefined {
  const step = history.future.at(-1);
  if (!step) return undefined;
  const ops = inverse(step.ops);
  return {
    command: { type: 'adjust', of: step.of, ops: [...ops] },
    history: { past: [...history.past, { id, of: step.of, ops: [...ops] }], future: history.future.slice(0, -1) },
  };
}

/** Once a change has its place among others, what it really changed is known; one that changed nothing leaves no step. */
export function settled(history: History, { id, edited }: Outcome): History {
  const settle = (steps: readonly Step[]): readonly Step[] =>
    steps.flatMap((step) => {
      if (step.id !== id) return [step];
      return edited.ops.length === 0 ? [] : [{ ...step, ops: [...edited.ops] }];
    });
  if (![...history.past, ...history.future].some((step) => step.id === id)) return history;
  return { past: settle(history.past), future: settle(history.future) };
}

/** Ops too heavy to be kept with every step: what is undone after a reload does not reach past them. */
const HEAVIEST = 200_000;

/** What of a history is kept on the device: the newest steps, as far as they are light enough. */
export function keptSteps({ past, future }: History): History {
  const light = (steps: readonly Step[]) => {
    let weight = 0;
    const from = steps.findLastIndex((step) => (weight += weightOf(step.ops)) > HEAVIEST);
    return steps.slice(from + 1).slice(-50);
  };
  return { past: light(past), future: light(future) };
}

const weightOf = (ops: Ops) => JSON.stringify(ops).length;
