// Makes demo/boathouse.hovlix: plays the four songs into Ogg files, then builds the show through the edits a user makes.
// Run: npm run demo

import { createHash } from 'node:crypto';
import { mkdirSync, writeFileSync } from 'node:fs';
import { createOggEncoder } from 'wasm-media-encoders';
import { readBundle, writeBundle, type MusicFile } from '@hovlix/core/files';
import { analyse } from '@hovlix/core/analysis';
import { writeEnvelopes } from '@hovlix/core/music';
import { wordsFor } from '@hovlix/core/problem';
import { Command, edit, readShow, SAFE, ORIGIN, type Show } from '@hovlix/core/show';
import { beatOfBar } from '@hovlix/core/time';
import { AIMS, BOATHOUSE, ROLES, PROFILES, VILLAGE_HALL } from './rigs';
import { FRIDAY, PEDAL, SWITCHES } from './gig';
import { CHASES, KITS, LOOKS, WARDROBES } from './looks';
import { SCORES, truthOf, type Score } from './songs';
import { SAMPLE_RATE, type Mix } from './synth';

const here = new URL('..', import.meta.url);
const music = new Map<string, MusicFile>();

let show = emptyShow();
const make = (command: unknown) => {
  show = edit(show, Command.parse(command)).show;
};
for (const profile of PROFILES) make({ type: 'add-profile', profile });
make({ type: 'add-rig', rig: BOATHOUSE });
make({ type: 'add-rig', rig: VILLAGE_HALL });
make({ type: 'choose-rig', rig: 'boathouse' });
for (const role of ROLES) make({ type: 'add-role', role });
for (const aim of AIMS) make({ type: 'add-aim', aim });
for (const look of LOOKS) make({ type: 'store-look', look });
for (const chase of CHASES) make({ type: 'store-chase', chase });
for (const kit of KITS) make({ type: 'store-kit', kit });
mkdirSync(new URL('truth', here), { recursive: true });
for (const score of SCORES) {
  await addSong(score);
  writeFileSync(new URL(`truth/${score.slug}.json`, here), JSON.stringify(truthOf(score)) + '\n');
}
make({ type: 'store-set', set: FRIDAY });
make({ type: 'store-pedal', pedal: PEDAL });
for (const control of SWITCHES) make({ type: 'store-control', control });
show = { ...show, rigs: show.rigs.filter((rig) => rig.id !== 'empty') };

const bytes = writeBundle({ show, music, chain: [ORIGIN] });
const back = readBundle(bytes, 'boathouse.hovlix');
if (!back.ok) throw new Error(wordsFor(back.problem));
writeFileSync(new URL('boathouse.hovlix', here), bytes);
console.log(`demo/boathouse.hovlix: ${(bytes.length / 1e6).toFixed(2)} MB, ${show.songs.length} songs`);

function emptyShow(): Show {
  const empty = readShow(
    {
      format: 'hovlix-show',
      version: 13,
      id: 'boathouse',
      name: 'Friday at the Boathouse',
      profiles: [],
      rigs: [{ id: 'empty', name: 'Empty', fixtures: [], casting: [] }],
      rig: 'empty',
      roles: [],
      aims: [],
      looks: [],
      chases: [],
      kits: [],
      banks: [],
      sets: [],
      pedals: [],
      controls: [],
      events: [],
      safety: SAFE,
      songs: [],
    },
    'the empty show',
  );
  if (!empty.ok) throw new Error(wordsFor(empty.problem));
  return empty.value;
}

async function addSong(score: Score): Promise<void> {
  const file = await encoded(score.play());
  const hash = createHash('sha256').update(file).digest('hex');
  const found = await analyse(file, score.title, async () => 'go-on');
  if (!found.ok) throw new Error(wordsFor(found.problem));
  music.set(hash, {
    bytes: file,
    peaks: found.value.peaks,
    envelopes: writeEnvelopes(found.value.envelopes),
  });
  make({
    type: 'add-song',
    added: {
      id: score.slug,
      title: score.title,
      by: score.by,
      music: { hash, name: `${score.title}.ogg`, type: 'ogg', bytes: file.length },
      duration: found.value.duration,
      tempo: score.tempo,
      meter: score.meter,
      sections: [],
      lanes: [
        { id: 'looks', name: 'Looks', type: 'looks', blend: 'highest', clips: [] },
        { id: 'accents', name: 'Accents', type: 'looks', blend: 'highest', clips: [] },
      ],
    },
  });
  score.sections.forEach(({ bar, bars, name, note }, i) => {
    make({
      type: 'mark-section',
      song: score.slug,
      section: { id: `${score.slug}-${i}`, bar, name, note, tint: tintOf(name) },
    });
    dress(score, bar, bars, name);
  });
}

/** Lays the looks of a section bar by bar, as one does with taps. */
function dress(score: Score, first: number, bars: number, name: string): void {
  const wardrobe = WARDROBES[score.slug]?.[name];
  if (!wardrobe) throw new Error(`${score.title}: nothing to wear in “${name}”`);
  const perBar = beatOfBar(score.meter, 1);
  const lay = (lane: string, look: string, from: number, to: number) =>
    make({
      type: 'lay-clip',
      song: score.slug,
      lane,
      clip: { id: `${lane}-${Math.round(from * 100)}`, look, from, to },
    });
  const start = beatOfBar(score.meter, first);
  const end = start + bars * perBar;
  const step = wardrobe.turn * perBar;
  for (let at: number = start, n = 0; at < end - 1e-6; at += step, n++)
    lay('looks', wardrobe.looks[n % wardrobe.looks.length]!, at, Math.min(end, at + step));
  for (let bar = 0; bar < bars && wardrobe.blinks; bar++)
    for (const beat of wardrobe.blinks.beats) {
      const at = start + bar * perBar + beat;
      lay('accents', wardrobe.blinks.look, at, at + wardrobe.blinks.length);
    }
}

function tintOf(name: string): number {
  const kinds = ['chorus', 'embers', 'lift', 'outro', 'theme', 'bridge', 'verse', 'intro'];
  const found = kinds.findIndex((kind) => name.toLowerCase().startsWith(kind));
  return found >= 0 ? found : name.length % 8;
}

async function encoded({ left, right }: Mix): Promise<Uint8Array> {
  const encoder = await createOggEncoder();
  encoder.configure({ channels: 2, sampleRate: SAMPLE_RATE, vbrQuality: 0 });
  const roles: Uint8Array[] = [];
  for (let at = 0; at < left.length; at += 8192)
    roles.push(encoder.encode([left.subarray(at, at + 8192), right.subarray(at, at + 8192)]).slice());
  roles.push(encoder.finalize().slice());
  return Buffer.concat(roles);
}
