// What a user can do to the connections. The same mechanism as for the show: named commands, and ops that tell what they did.

import type { Draft } from 'immer';
import { z } from 'zod';
import { changed, laid, OpsShape, put, remove, type Ops } from '../change';
import { failed, never, ok, type Result } from '../problem';
import { idOf } from '../rig/schema';
import { id, universe } from '../units';
import { InputRow, Connections, MidiIn, MOST_ROWS, OscIn, OutputRow, PlayerIn, TimetableIn, type Way } from './schema';

export const ConnectCommand = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('put-output'), row: OutputRow }),
  z.strictObject({ type: z.literal('remove-output'), output: idOf<'Output'>() }),
  z.strictObject({ type: z.literal('put-input'), row: InputRow }),
  z.strictObject({ type: z.literal('remove-input'), input: idOf<'Input'>() }),
  z.strictObject({ type: z.literal('name-source'), sourceName: z.string().trim().min(1).max(60) }),
  z.strictObject({ type: z.literal('choose-sync'), sync: z.boolean() }),
  z.strictObject({ type: z.literal('set-player'), player: PlayerIn }),
  z.strictObject({ type: z.literal('set-midi'), midi: MidiIn }),
  z.strictObject({ type: z.literal('set-osc'), osc: OscIn }),
  z.strictObject({ type: z.literal('set-timetable'), timetable: TimetableIn }),
  /** Takes back, or does again, what ops tell; where somebody changed the same since, that stays. */
  z.strictObject({ type: z.literal('adjust'), ops: OpsShape }),
]);
export type ConnectCommand = z.infer<typeof ConnectCommand>;

/** The connections after a command. One that names something that is gone changes nothing. */
export function editConnections(
  connections: Connections,
  command: ConnectCommand,
): { readonly connections: Connections; readonly ops: Ops } {
  if (command.type === 'adjust') {
    const { after, missed } = laid(connections, command.ops);
    return { connections: after, ops: command.ops.filter((op) => !missed.includes(op)) };
  }
  const { after, ops } = changed(connections, (draft) => apply(draft, command));
  return { connections: after, ops };
}

function apply(connections: Draft<Connections>, command: Exclude<ConnectCommand, { type: 'adjust' }>): void {
  switch (command.type) {
    case 'put-output':
      put(connections.outputs, command.row);
      return mark(connections, command.row.universe);
    case 'remove-output':
      return remove(connections.outputs, command.output);
    case 'put-input':
      return put(connections.inputs, command.row);
    case 'remove-input':
      return remove(connections.inputs, command.input);
    case 'name-source':
      connections.sourceName = command.sourceName;
      return;
    case 'choose-sync':
      connections.sync = command.sync;
      return;
    case 'set-player':
      connections.player = command.player;
      return;
    case 'set-midi':
      connections.midi = command.midi;
      return;
    case 'set-timetable':
      connections.timetable = command.timetable;
      return;
    case 'set-osc':
      connections.osc = command.osc;
      return;
    default:
      return never(command);
  }
}

/**
 * The connections with an output for each of these universes that never had one: to `way`, under the universe's own number.
 * A row that somebody removed does not come back.
 */
export function reaching(
  connections: Connections,
  universes: readonly number[],
  way: (universe: number) => Way,
): Connections {
  const fresh = universes.filter((one) => !connections.seen.some((known) => known === one));
  if (fresh.length === 0 || connections.outputs.length + fresh.length > MOST_ROWS) return connections;
  return changed(connections, (draft) => {
    for (const one of fresh) {
      draft.outputs.push({
        id: id<'Output'>(`universe-${one}-${draft.outputs.length}`),
        universe: universe(one),
        on: true,
        delayMs: 0,
        way: way(one),
      });
      mark(draft, one);
    }
  }).after;
}

/** Connections from JSON that somebody may have edited by hand. */
export function readConnections(json: unknown, name: string): Result<Connections> {
  const parsed = Connections.safeParse(json);
  if (parsed.success) return ok(parsed.data);
  const version = (json as { version?: unknown } | null)?.version;
  if (typeof version === 'number' && version > 1) return failed({ code: 'too-new', name, version, newest: 1 });
  const issue = parsed.error.issues[0]!;
  return failed({ code: 'bad-value', name, path: issue.path.join('.') || 'the top', detail: issue.message });
}

function mark(connections: Draft<Connections>, number: number): void {
  if (!connections.seen.some((known) => known === number)) connections.seen.push(universe(number));
}
