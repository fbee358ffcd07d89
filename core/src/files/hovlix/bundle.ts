// The .hovlix file: a zip that holds the show as JSON, its music, and what was found out about the music.
//
//   hovlix.json            { "format": "hovlix", "version": 1, "chain": [...], "savedAt": ms }: the changes the show came by
//   show.json              the show (docs/show.schema.json)
//   music/<sha-256>.<type> each song's file, as it came
//   music/<sha-256>.peaks  its waveform: one byte a hundredth of a second
//   music/<sha-256>.envelopes  what followers hear in it (core/src/music/envelopes.ts)

import { unzipSync, zipSync, type Zippable } from 'fflate';
import { z } from 'zod';
import { failed, ok, type Result } from '../../problem';
import { CHAIN_KEPT, ORIGIN, readShow, type Chain, type Show } from '../../show';
import { recordingsOf } from '../../song';

/** A song's file, and what was found out about it. */
export type MusicFile = {
  readonly bytes: Uint8Array;
  readonly peaks: Uint8Array | undefined;
  readonly envelopes: Uint8Array | undefined;
};

export type Bundle = {
  readonly show: Show;
  /** The changes it came by, so that two copies can be compared; files of before have none. */
  readonly chain: Chain;
  /** When it was written, in ms since 1970. */
  readonly savedAt?: number;
  /** By SHA-256 of the file. */
  readonly music: ReadonlyMap<string, MusicFile>;
};

export const BUNDLE_VERSION = 1;

/** What a bundle may unpack to. A 70-minute mix as WAV takes 750 MB. */
const MOST_MEGABYTES = 1500;
const MOST_ENTRIES = 20000;
/** A show is text; so much of it nobody writes. */
const MOST_SHOW_MEGABYTES = 64;
/**
 * Music hardly gets smaller in a zip, silence does: what is inflated may have so many times the bytes of the file, and
 * a quarter of a gigabyte on top.
 */
const INFLATES = 20;
const INFLATES_MEGABYTES = 250;

const Manifest = z.object({
  format: z.literal('hovlix'),
  version: z.number().int().min(1),
  chain: z.array(z.string().min(1).max(80)).min(1).max(CHAIN_KEPT).default([ORIGIN]),
  savedAt: z.number().optional(),
});

/** Music goes in as it is (it is packed already); JSON and waveforms are deflated. */
export function writeBundle({ show, music, chain, savedAt }: Bundle): Uint8Array<ArrayBuffer> {
  const text = (value: unknown) => new TextEncoder().encode(JSON.stringify(value));
  const entries: Zippable = {
    'hovlix.json': text({
      format: 'hovlix',
      version: BUNDLE_VERSION,
      chain,
      ...(savedAt === undefined ? {} : { savedAt }),
    }),
    'show.json': text(show),
  };
  for (const { hash, type } of recordingsOf(show.songs)) {
    const file = music.get(hash);
    if (!file) continue;
    entries[`music/${hash}.${type}`] = [file.bytes, { level: 0 }];
    if (file.peaks) entries[`music/${hash}.peaks`] = file.peaks;
    if (file.envelopes) entries[`music/${hash}.envelopes`] = file.envelopes;
  }
  // A fixed date makes the same show the same bytes.
  return zipSync(entries, { mtime: '2020-01-01T00:00' });
}

/**
 * Reads a bundle, trusting nothing in it. A song whose music is missing comes in without problem: the music can be
 * brought later.
 * @param name the file's name, for a problem's words.
 */
export function readBundle(bytes: Uint8Array, name: string): Result<Bundle> {
  if (bytes.length === 0) return failed({ code: 'empty-file', name });
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) return failed({ code: 'not-zip', name });
  const entries = unpacked(bytes, name);
  if (!entries.ok) return entries;
  const manifest = json(entries.value, 'hovlix.json', name);
  if (!manifest.ok) return manifest;
  const parsed = Manifest.safeParse(manifest.value);
  if (!parsed.success)
    return failed({ code: 'bad-value', name, path: 'hovlix.json', detail: parsed.error.issues[0]!.message });
  if (parsed.data.version > BUNDLE_VERSION)
    return failed({ code: 'too-new', name, version: parsed.data.version, newest: BUNDLE_VERSION });
  const document = json(entries.value, 'show.json', name);
  if (!document.ok) return document;
  const show = readShow(document.value, name);
  if (!show.ok) return show;
  const { chain, savedAt } = parsed.data;
  return ok({
    show: show.value,
    chain,
    ...(savedAt === undefined ? {} : { savedAt }),
    music: musicOf(show.value, entries.value),
  });
}

function musicOf(show: Show, entries: Readonly<Record<string, Uint8Array>>): Bundle['music'] {
  const music = new Map<string, MusicFile>();
  for (const file of recordingsOf(show.songs)) {
    const bytes = entries[`music/${file.hash}.${file.type}`];
    if (!file || !bytes) continue;
    const found = (kind: string) => entries[`music/${file.hash}.${kind}`];
    music.set(file.hash, { bytes, peaks: found('peaks'), envelopes: found('envelopes') });
  }
  return music;
}

/** All entries, once their names and their sizes together have been found harmless. */
function unpacked(bytes: Uint8Array, name: string): Result<Readonly<Record<string, Uint8Array>>> {
  let total = 0;
  let count = 0;
  let climbing: string | undefined;
  let tooLong: number | undefined;
  const limit = Math.min(MOST_MEGABYTES * 1e6, bytes.length * INFLATES + INFLATES_MEGABYTES * 1e6);
  try {
    const entries = unzipSync(bytes, {
      filter(entry) {
        if (isUnsafe(entry.name)) climbing ??= entry.name;
        count++;
        // What is none of ours is left packed.
        if (!OURS.test(entry.name)) return false;
        const size = Math.max(entry.originalSize, entry.size);
        if (entry.name.endsWith('.json') && size > MOST_SHOW_MEGABYTES * 1e6) tooLong ??= size;
        total += size;
        return !climbing && tooLong === undefined && total <= limit && count <= MOST_ENTRIES;
      },
    });
    if (climbing) return failed({ code: 'unsafe-path', name, path: climbing });
    if (tooLong !== undefined)
      return failed({ code: 'too-big', name, megabytes: tooLong / 1e6, limit: MOST_SHOW_MEGABYTES });
    if (total > limit) return failed({ code: 'too-big', name, megabytes: total / 1e6, limit: limit / 1e6 });
    if (count > MOST_ENTRIES) return failed({ code: 'bad-value', name, path: 'the zip', detail: `${count} entries` });
    return ok(entries);
  } catch (error) {
    const detail = error instanceof Error ? error.message : String(error);
    return failed({ code: 'cut-short', name, detail });
  }
}

/** The entries a bundle is made of. */
const OURS = /^(?:hovlix|show)\.json$|^music\/[0-9a-f]{64}\.[a-z0-9]{1,10}$/;

/** A name that leaves the bundle: absolute, with a drive, or climbing. */
function isUnsafe(path: string): boolean {
  return /^[\\/]|^[a-z]:/i.test(path) || path.split(/[\\/]/).includes('..') || path.includes('\0');
}

function json(entries: Readonly<Record<string, Uint8Array>>, part: string, name: string): Result<unknown> {
  const bytes = entries[part];
  if (!bytes) return failed({ code: 'missing-part', name, part });
  try {
    return ok(JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes)));
  } catch (error) {
    return failed({ code: 'bad-json', name, part, detail: error instanceof Error ? error.message : String(error) });
  }
}
