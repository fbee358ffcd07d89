// Brings a document of any version ever shipped up to the newest one.

import { failed, ok, type Result } from '../problem';

export const NEWEST = 13;

type Json = Readonly<Record<string, unknown>>;

/** `MIGRATIONS[n]` turns version n into version n + 1. Numbered without gaps from 1; never changed once shipped. */
export const MIGRATIONS: Readonly<Record<number, (show: Json) => Json>> = {
  // Gobos were bare names. Everything else that came with version 2 may be left out.
  1: (show) => ({ ...show, profiles: listOf(show['profiles']).map(withPatterns) }),
  // Chases came. Whatever else is new in looks may be left out.
  2: (show) => ({ ...show, chases: [] }),
  // Hit kits came, banks of pads, and flash safety: on in new shows, while this one keeps the light it was made with.
  3: (show) => ({ ...show, kits: [], banks: [], safety: { on: false, most: 3 } }),
  // Roles were called parts, in every place that names one.
  4: ({ parts, ...show }) => ({
    ...show,
    roles: parts,
    rigs: listOf(show['rigs']).map((rig) => withLists(rig, { casting: roleNamed })),
    looks: listOf(show['looks']).map(withRoles),
    chases: listOf(show['chases']).map((chase) => withLists(chase, { steps: withRoles })),
    kits: listOf(show['kits']).map((kit) => withLists(kit, { channels: roleNamed })),
  }),
  // Lanes of hits and of curves came, and lanes with a fader; all of it may be left out.
  5: (show) => show,
  // Lanes of actions came, markers, recordings beside the music, a song's key and notes, and clips with a pace, level and colours of their own.
  6: (show) => show,
  // Set lists came, pedals and controls.
  7: (show) => ({ ...show, sets: [], pedals: [], controls: [] }),
  // Fades at jumps came, more that a pedal can do, and songs that go by timecode; all of it may be left out.
  8: (show) => show,
  // Tracks of a DJ player came; they may be left out.
  9: (show) => show,
  // Steps that snap or fade by themselves came, and pictures of lamp types; both may be left out.
  10: (show) => show,
  // Controls that are heard over OSC came; they may be left out.
  11: (show) => show,
  // Timetables came.
  12: (show) => ({ ...show, events: [] }),
};

/** A look, or a step of a chase. */
const withRoles = (play: unknown): unknown => withLists(play, { values: roleNamed });

function roleNamed(record: unknown): unknown {
  if (typeof record !== 'object' || record === null || !('part' in record)) return record;
  const { part, ...rest } = record;
  return { role: part, ...rest };
}

/** A record with each element of some of its lists changed; what is no record, or no list, is left to the schema. */
function withLists(record: unknown, change: Readonly<Record<string, (element: unknown) => unknown>>): unknown {
  if (typeof record !== 'object' || record === null) return record;
  const lists = Object.entries(change).flatMap(([key, each]) => {
    const list = (record as Json)[key];
    return Array.isArray(list) ? [[key, list.map(each)] as const] : [];
  });
  return { ...record, ...Object.fromEntries(lists) };
}

const PATTERNS_OF_OLD = ['open', 'leaves', 'waves', 'dots', 'rings', 'net', 'rays', 'bars'];

function withPatterns(profile: unknown): unknown {
  if (typeof profile !== 'object' || profile === null || !('gobos' in profile)) return profile;
  const gobos = listOf(profile.gobos).map((name, i) =>
    typeof name === 'string' ? { name, pattern: PATTERNS_OF_OLD[i === 0 ? 0 : 1 + ((i - 1) % 7)] } : name,
  );
  return { ...profile, gobos };
}

function listOf(value: unknown): readonly unknown[] {
  return Array.isArray(value) ? value : [];
}

/** The document as the newest version has it; `migrations` and `newest` are arguments so that the frame can be tested. */
export function migrated(
  json: unknown,
  name: string,
  migrations: Readonly<Record<number, (show: Json) => Json>> = MIGRATIONS,
  newest: number = NEWEST,
): Result<unknown> {
  if (typeof json !== 'object' || json === null || Array.isArray(json))
    return failed({ code: 'bad-value', name, path: 'the top', detail: 'a show is a JSON object' });
  let show = json as Json;
  const version = show['version'];
  if (show['format'] !== 'hovlix-show')
    return failed({ code: 'bad-value', name, path: 'format', detail: 'this is not a Hovlix show' });
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    return failed({ code: 'bad-value', name, path: 'version', detail: 'a whole number from 1 is needed' });
  if (version > newest) return failed({ code: 'too-new', name, version, newest });
  for (let at = version; at < newest; at++) {
    const step = migrations[at];
    if (!step) throw new Error(`There is no migration from version ${at}`);
    show = { ...step(show), version: at + 1 };
  }
  return ok(show);
}
