// Ops as they come from outside.

import { z } from 'zod';
import type { Op } from './diff';

const Key = z.string().min(1).max(130);
const Path = z.array(Key).max(20);
const Place = Key.nullable();
const Record = z.record(z.string(), z.unknown());

export const OpShape: z.ZodType<Op, unknown> = z.discriminatedUnion('op', [
  z.strictObject({ op: z.literal('set'), path: Path.min(1), from: z.unknown().optional(), to: z.unknown().optional() }),
  z.strictObject({ op: z.literal('put'), path: Path.min(1), record: Record, after: Place }),
  z.strictObject({ op: z.literal('drop'), path: Path.min(1), record: Record, after: Place }),
  z.strictObject({ op: z.literal('move'), path: Path.min(1), id: Key, from: Place, after: Place }),
]) as z.ZodType<Op, unknown>;

export const OpsShape = z.array(OpShape).max(50_000);
