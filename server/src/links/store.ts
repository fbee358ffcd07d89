// The links of this computer: one document in a file, changed by screens, followed by everything that sends or listens.

import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { editLinks, NO_LINKS, reaching, readLinks, type Links, type LinksCommand, type Way } from '@hovlix/core/links';
import { wordsFor } from '@hovlix/core/problem';
import { patched } from '@hovlix/core/show';

export type LinksStore = {
  readonly links: () => Links;
  readonly revision: () => number;
  readonly onChange: (follower: (links: Links) => void) => void;
  /** Lays patches on. `stale` when they were made on another revision. */
  readonly edit: (patches: unknown, revision: number) => 'done' | 'stale' | { readonly why: string };
  readonly make: (command: LinksCommand) => void;
  /** Gives each universe that never had an output one. */
  readonly reach: (universes: readonly number[], ways: readonly ((universe: number) => Way)[]) => void;
};

/**
 * @param file where they are kept; without, only in memory. A file that cannot be read is set aside, not overwritten.
 * @param warn is told in words what is wrong with it.
 */
export function linksStore(file: string | undefined, warn: (why: string) => void): LinksStore {
  let links = file ? read(file, warn) : NO_LINKS;
  let revision = 0;
  const followers: ((links: Links) => void)[] = [];
  const take = (next: Links) => {
    if (next === links) return;
    links = next;
    revision++;
    if (file) write(file, links, warn);
    for (const follower of followers) follower(links);
  };
  return {
    links: () => links,
    revision: () => revision,
    onChange: (follower) => void followers.push(follower),
    edit(patches, from) {
      if (from !== revision) return 'stale';
      try {
        const next = readLinks(patched(links, patches as Parameters<typeof patched>[1]), 'the links');
        if (!next.ok) return { why: wordsFor(next.problem) };
        take(next.value);
        return 'done';
      } catch (error) {
        return { why: `The edit does not fit the links: ${error instanceof Error ? error.message : String(error)}.` };
      }
    },
    make: (command) => take(editLinks(links, command).links),
    reach(universes, ways) {
      // Each way in turn: the first marks a universe as reached, so all are laid on the same start.
      const from = links;
      const rows = ways.map((way) => reaching(from, universes, way).outputs.slice(from.outputs.length));
      const first = ways[0] ? reaching(from, universes, ways[0]) : from;
      const more = rows
        .slice(1)
        .flatMap((list, n) => list.map((row) => ({ ...row, id: `${row.id}-${n}` as typeof row.id })));
      take(first === from ? from : { ...first, outputs: [...first.outputs, ...more] });
    },
  };
}

function read(file: string, warn: (why: string) => void): Links {
  let text: string;
  try {
    text = readFileSync(file, 'utf8');
  } catch {
    return NO_LINKS;
  }
  try {
    const links = readLinks(JSON.parse(text), file);
    if (links.ok) return links.value;
    warn(`${wordsFor(links.problem)} It was set aside as ${file}.bad; outputs start anew.`);
  } catch {
    warn(`“${file}” is not JSON. It was set aside as ${file}.bad; outputs start anew.`);
  }
  try {
    renameSync(file, `${file}.bad`);
  } catch {
    // A folder that cannot be written to: the file stays where it is.
  }
  return NO_LINKS;
}

/** Written beside and moved into place, so that a crash leaves the old one or the new one. */
function write(file: string, links: Links, warn: (why: string) => void): void {
  try {
    mkdirSync(dirname(file), { recursive: true });
    writeFileSync(`${file}.new`, JSON.stringify(links, null, 2));
    renameSync(`${file}.new`, file);
  } catch (error) {
    warn(`The outputs could not be kept in ${file} (${(error as Error).message}). They are lost when Hovlix stops.`);
  }
}
