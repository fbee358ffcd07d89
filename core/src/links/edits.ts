// What a user can do to the links. The same mechanism as for the show: named commands, patches, inverses.

import type { Draft } from 'immer';
import { z } from 'zod';
import { changed, put, remove, type ChangeOf } from '../change/change';
import { failed, never, ok, type Result } from '../problem';
import { idOf } from '../rig/schema';
import { id, universe } from '../units';
import { InputRow, Links, MOST_ROWS, OutputRow, type Way } from './schema';

export const LinksCommand = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('put-output'), row: OutputRow }),
  z.strictObject({ type: z.literal('remove-output'), output: idOf<'Output'>() }),
  z.strictObject({ type: z.literal('put-input'), row: InputRow }),
  z.strictObject({ type: z.literal('remove-input'), input: idOf<'Input'>() }),
  z.strictObject({ type: z.literal('name-source'), sourceName: z.string().trim().min(1).max(60) }),
  z.strictObject({ type: z.literal('choose-sync'), sync: z.boolean() }),
]);
export type LinksCommand = z.infer<typeof LinksCommand>;
export type LinksChange = ChangeOf<LinksCommand['type'] | 'reach-universes'>;

/** The links after a command. One that names something that is gone changes nothing. */
export function editLinks(
  links: Links,
  command: LinksCommand,
): { readonly links: Links; readonly change: LinksChange } {
  const { after, change } = changed(links, command.type, (draft) => apply(draft, command));
  return { links: after, change };
}

function apply(links: Draft<Links>, command: LinksCommand): void {
  switch (command.type) {
    case 'put-output':
      put(links.outputs, command.row);
      return mark(links, command.row.universe);
    case 'remove-output':
      return remove(links.outputs, command.output);
    case 'put-input':
      return put(links.inputs, command.row);
    case 'remove-input':
      return remove(links.inputs, command.input);
    case 'name-source':
      links.sourceName = command.sourceName;
      return;
    case 'choose-sync':
      links.sync = command.sync;
      return;
    default:
      return never(command);
  }
}

/**
 * The links with an output for each of these universes that never had one: to `way`, under the universe's own number.
 * A row that somebody removed does not come back.
 */
export function reaching(links: Links, universes: readonly number[], way: (universe: number) => Way): Links {
  const fresh = universes.filter((one) => !links.seen.some((known) => known === one));
  if (fresh.length === 0 || links.outputs.length + fresh.length > MOST_ROWS) return links;
  return changed(links, 'reach-universes', (draft) => {
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

/** Links from JSON that somebody may have edited by hand. */
export function readLinks(json: unknown, name: string): Result<Links> {
  const parsed = Links.safeParse(json);
  if (parsed.success) return ok(parsed.data);
  const version = (json as { version?: unknown } | null)?.version;
  if (typeof version === 'number' && version > 1) return failed({ code: 'too-new', name, version, newest: 1 });
  const issue = parsed.error.issues[0]!;
  return failed({ code: 'bad-value', name, path: issue.path.join('.') || 'the top', detail: issue.message });
}

function mark(links: Draft<Links>, number: number): void {
  if (!links.seen.some((known) => known === number)) links.seen.push(universe(number));
}
