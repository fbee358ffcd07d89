// All that reads what comes from outside, with input to begin from; and what is taken must give light.

import { conductorHub, session } from '../conduct';
import { compile, explain, frameFor, limiter, ready, render, type Program } from '../engine';
import { readBundle, writeBundle } from '../files';
import { readGdtf, writeGdtf } from '../files/gdtf';
import { commandsOf, readMidi, takenFrom, usualChoices, writeSongAsMidi } from '../files/midi';
import { readM3u } from '../files/set';
import { controlSurface } from '../gear';
import { Control } from '../gig';
import { Chase, Kit } from '../light';
import {
  AT_REST,
  logHead,
  logLine,
  playedAlone,
  PROTOCOL,
  readLog,
  replay,
  type Action,
  type LiveState,
} from '../live';
import { analyse, gridOf, readHeard, readTags, writeHeard, type Heard } from '../analysis';
import { envelopesOf, LOUDNESS_BANDS, readEnvelopes, writeEnvelopes } from '../music';
import { oscHearer } from '../osc';
import { asMp4 } from '../playable';
import { playerFollower, readDeckWord, writeDeckWord } from '../player';
import { fixtureLibrary, readChart } from '../rig';
import { edit, legal, readShow, type Show } from '../show';
import { id, seconds, universe } from '../units';
import {
  decodeArtNet,
  decodeOsc,
  decodeSacn,
  encodeArtDmx,
  encodeArtPoll,
  encodeDmxFrame,
  encodeOsc,
  encodeSacn,
  encodeSacnDiscovery,
  framedReader,
  plainReader,
} from '../wire';
import type { Outcome, Reader } from './fuzz';
import { aiff } from './aiff';
import { CALENDARS, calendarTaken } from './fuzz-calendars';
import { testHost } from './gear-host';
import { flacWithRate, oggWithRate } from './hostile';
import { hold, look, press, wave, withLooks, type ValueIn } from './stage';
import { wavOf } from './wav';

const text = (value: unknown) => new TextEncoder().encode(typeof value === 'string' ? value : JSON.stringify(value));
const untext = (bytes: Uint8Array) => new TextDecoder().decode(bytes);
const outcome = ({ ok }: { readonly ok: boolean }): Outcome => (ok ? 'taken' : 'refused');

/** A show that has something of everything. */
function richShow(): Show {
  const values: ValueIn[] = [
    {
      role: 'wash',
      level: hold(0.5),
      colour: hold({ x: 0.3, y: 0.3 }),
      waves: [wave('level', { shape: 'square', span: { beats: 0.25 } })],
    },
    {
      role: 'movers',
      aim: hold({ pan: 20, tilt: 10 }),
      strobe: hold(4),
      waves: [wave('pan', { low: -20, high: 20 }), wave('hue', { span: { seconds: 2 } })],
    },
    {
      role: 'bars',
      level: hold(1),
      more: { ColorAdd_G: hold(0.5) },
      followers: [{ type: 'follow', on: 'level', low: 0, high: 1, hears: { drum: 'kick' }, attack: 0, release: 0.2 }],
    },
  ];
  const steps = values.map((value, i) => ({ id: `${i}`, values: [value], fade: 0.2, hold: 0.3 }));
  const chase = Chase.parse({ id: 'run', number: 1, name: 'Run', fadeIn: 1, fadeOut: 0, pace: 'beats', steps });
  const kit = Kit.parse({
    id: 'k',
    name: 'K',
    channels: [],
    hits: [
      {
        id: 'h',
        name: 'H',
        low: 36,
        high: 60,
        level: 1,
        attack: { seconds: 0 },
        hold: { seconds: 0.05 },
        release: { seconds: 0.2 },
      },
    ],
  });
  const made = edit(withLooks(look(values)), { type: 'store-chase', chase }).show;
  return edit(edit(made, { type: 'store-kit', kit }).show, { type: 'set-safety', safety: { on: true, most: 3 } }).show;
}

const RICH = richShow();
/** A second of silence and clicks. */
const AIFF = aiff(
  Uint8Array.from({ length: 16_000 }, (_, i) => (i % 4000 === 0 ? 90 : 0)),
  { bits: 16, channels: 1, rate: 8000 },
);
/** A second of a tone. */
const WAV = wavOf(
  Float32Array.from({ length: 4000 }, (_, i) => Math.sin(i / 5) * 0.27),
  4000,
);

/** Two notes of channel 10, the second by running status. */
const MIDI = Uint8Array.from([
  0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 0, 0, 1, 0, 96, 0x4d, 0x54, 0x72, 0x6b, 0, 0, 0, 14, 0, 0x99, 36, 64, 48, 38,
  64, 48, 36, 0, 0, 0xff, 0x2f, 0,
]);

/** What is taken of a file must be a show still. */
function midi(bytes: Uint8Array): Outcome {
  const music = readMidi(bytes, 'x.mid');
  if (!music.ok) return 'refused';
  const [song] = RICH.songs;
  const choices = { ...usualChoices(music.value, song!, RICH), tempo: true, sections: true };
  let n = 0;
  const commands = commandsOf(
    song!.id,
    takenFrom(music.value, song!, RICH, choices, () => `m${n++}`),
  );
  const after = commands.reduce((show, command) => edit(show, command).show, RICH);
  const read = legal(after, new WeakSet());
  if (!read.ok) throw new Error(JSON.stringify(read.problem));
  return 'taken';
}

/** Light of a show in some states must be numbers, and Why? must have an answer. */
function lit(program: Program, states: readonly LiveState[]): void {
  const frame = frameFor(program);
  const safe = limiter();
  for (const [n, state] of states.entries()) {
    ready(program, state);
    for (const at of [0, 0.31, 1000]) {
      render(program, state, seconds(n + at), frame);
      safe.hold(program, frame, n * 2000 + at);
      for (const field of program.fields)
        for (const value of field.values) if (!Number.isFinite(value)) throw new Error(`${field.name} is ${value}`);
    }
    const [head] = program.heads;
    if (head) explain(program, state, seconds(n), head.fixture.id);
  }
}

function lightUp(show: Show): void {
  const program = compile(show);
  const names = [...show.looks, ...show.chases].slice(0, 5).map((one) => one.id as string);
  const standing = names.reduce(
    (state, name) => press(state, { type: 'look-on', look: id(name), fade: seconds(0.1) }, 0),
    AT_REST,
  );
  lit(program, [standing, ...show.songs.slice(0, 2).map((song) => playedAlone(song.id))]);
}

const ACTIONS: readonly object[] = [
  { type: 'look-on', look: 'new', fade: 0.2 },
  { type: 'look-on', look: 'run', fade: 0, from: 3 },
  { type: 'look-off', look: 'new', fade: 1 },
  { type: 'pad', press: 'toggle', down: true, look: 'red', fade: 0, fadeOut: 0, group: ['red', 'new'] },
  { type: 'go', bank: 'all', look: 'red', fade: 1 },
  {
    type: 'hand',
    values: [
      { role: 'wash', level: hold(1), waves: [wave('level', {})] },
      { lamps: ['a', 's'], aim: hold({ pan: 3, tilt: 4 }) },
    ],
  },
  { type: 'hand', values: [{ role: 'movers', colour: hold({ x: 0.6, y: 0.3 }), followers: [] }], only: true },
  { type: 'release', fade: 0.5 },
  { type: 'notes', notes: [{ kit: 'k', role: 'wash', hit: 'h', note: 36, velocity: 0.7 }], most: 3 },
  { type: 'tap' },
  { type: 'step', look: 'run', by: 2 },
  { type: 'heard', levels: new Array<number>(16).fill(90), strokes: { kick: 1, snare: 0, hat: 0 } },
  { type: 'master', level: 0.5 },
  { type: 'role-master', role: 'wash', level: 0.2 },
  { type: 'speed', rate: 2, look: 'run' },
  { type: 'fade-times', factor: 2 },
  { type: 'blackout', on: true, fade: 1 },
  { type: 'freeze', on: true, fade: 0 },
  { type: 'freeze', on: false, fade: 2 },
  { type: 'jump', jump: { when: 8, to: 2, loop: { from: 2, to: 6 }, fade: 1 } },
  { type: 'hold-channels', channels: [{ universe: 1, address: 4, value: 200 }] },
  { type: 'free-channels', universe: 1, from: 2, count: 9 },
  { type: 'all-off', fade: 0 },
  { type: 'flash-channels', universe: 1, from: 1, count: 16, length: 4 },
  { type: 'walk-channels', universe: 1, from: 1, to: 8, step: 0.5 },
  { type: 'sending', on: true },
  { type: 'play', song: 'song', from: 3, rate: 1 },
  { type: 'seek', to: 12, fade: 3 },
  { type: 'anchor', songTime: 4, at: 0, rate: 1 },
  { type: 'pause' },
  { type: 'open-song', song: 'song', from: 0 },
];

const EDITS: readonly object[] = [
  { type: 'rename-show', name: 'Other' },
  { type: 'store-look', look: look([{ role: 'wash', level: hold(1) }]) },
  { type: 'set-safety', safety: { on: false, most: 2 } },
  { type: 'adjust', of: 'x', ops: [{ op: 'set', path: ['looks', 'red', 'name'], from: 'Red', to: 'Rose' }] },
];

/** Messages a screen may send, some to a try. */
const SENT: readonly Uint8Array[] = ACTIONS.map((action, i) =>
  text(
    [
      { type: 'act', action },
      { type: 'edit', show: 'test', change: { id: `c${i}`, command: EDITS[i % EDITS.length]! } },
      { type: 'act', action: ACTIONS[(i * 7 + 3) % ACTIONS.length]! },
      { type: 'preview', show: 'test', ops: null },
      { type: 'watch', universe: 1 },
    ]
      .map((message) => JSON.stringify(message))
      .join('\n'),
  ),
);

const RICH_PROGRAM = compile(RICH);

function heard(bytes: Uint8Array): Outcome {
  let clock = 0;
  const nothing = () => undefined;
  const following = { entry: nothing, show: nothing, changed: nothing, keep: nothing };
  const shared = session(() => seconds(clock), following, { show: RICH, chain: ['first'] });
  const hub = conductorHub({ now: () => seconds(clock), session: shared });
  let refused = 0;
  const wire = {
    send: (said: string) => void (refused += Number(said.includes('"type":"refused"'))),
    close: nothing,
    waiting: () => 0,
  };
  const line = hub.meet(wire, { device: { id: 'd', name: 'Phone', may: 'operator' } });
  line.hear(JSON.stringify({ type: 'hello', protocol: PROTOCOL, screen: 'one', show: null }));
  for (const said of untext(bytes).split('\n')) {
    line.hear(said);
    clock += 0.05;
  }
  const { show } = shared.order()!;
  lit(show === RICH ? RICH_PROGRAM : compile(show), [shared.conductor.state()]);
  return refused > 0 ? 'refused' : 'taken';
}

const LOG = [
  logHead(),
  ...ACTIONS.map((action, i) => logLine({ seq: i + 1, at: seconds(i / 4), who: 'one', action: action as Action })),
].join('\n');

function logged(bytes: Uint8Array): Outcome {
  const read = readLog(untext(bytes), 'x.log');
  if (read.ok) {
    const stateAt = replay(read.value);
    lit(RICH_PROGRAM, [stateAt(seconds(2)), stateAt(seconds(100))]);
  }
  return outcome(read);
}

const cid = new Uint8Array(16).fill(7);
const SACN = [
  encodeSacn({
    cid,
    sourceName: 'X',
    priority: 100,
    sync: 0,
    sequence: 1,
    preview: false,
    terminated: false,
    universe: universe(1),
    levels: new Uint8Array(512),
  }),
  ...encodeSacnDiscovery(cid, 'X', [1, 2, 3]),
];

/** @param recordings music to begin from, as MP3 and as Ogg. */
export function readers(recordings: readonly Uint8Array[]): readonly Reader[] {
  const profiles = fixtureLibrary().slice(0, 6);
  const envelopes = writeEnvelopes(envelopesOf(new Uint8Array(LOUDNESS_BANDS * 200).map((_, i) => (i * 37) % 251)));
  const show = (bytes: Uint8Array): Outcome => {
    let json: unknown;
    try {
      json = JSON.parse(untext(bytes));
    } catch {
      return 'refused';
    }
    const read = readShow(json, 'x');
    if (read.ok) lightUp(read.value);
    return outcome(read);
  };
  const bundle = (bytes: Uint8Array): Outcome => {
    const read = readBundle(bytes, 'x.hovlix');
    if (read.ok) lightUp(read.value.show);
    return outcome(read);
  };
  const music = new Map([['ab'.repeat(32), { bytes: WAV, peaks: Uint8Array.of(1, 2), envelopes }]]);
  const serial = (bytes: Uint8Array): Outcome => {
    let found = 0;
    for (const reader of [framedReader, plainReader]) {
      const one = reader(() => void found++);
      one.take(bytes.subarray(0, bytes.length >> 1), seconds(0));
      one.take(bytes.subarray(bytes.length >> 1), seconds(0.01));
    }
    return found > 0 ? 'taken' : 'refused';
  };
  return [
    { name: 'shows', json: true, samples: [text(RICH)], read: show },
    {
      name: 'bundles',
      json: false,
      samples: [writeBundle({ show: RICH, chain: ['x'], savedAt: 1, music })],
      read: bundle,
    },
    { name: 'screens', json: true, samples: SENT, read: heard },
    { name: 'logs', json: true, samples: [text(LOG)], read: logged },
    {
      name: 'lamp types',
      json: false,
      samples: profiles.map((profile) => writeGdtf(profile)),
      read: (bytes) => outcome(readGdtf(bytes, 'x.gdtf', 'x')),
    },
    {
      name: 'playlists',
      json: false,
      samples: [text('#EXTM3U\n#EXTINF:60,Song\nSong.wav\n'), text('C:\\Music\\Song.ogg\r\nother.mp3')],
      read: (bytes) => outcome(readM3u(bytes, 'x.m3u', RICH, () => 'entry', { before: RICH.sets[0]?.entries ?? [] })),
    },
    { name: 'calendars', json: false, samples: CALENDARS.map(text), read: calendarTaken(RICH) },
    { name: 'MIDI files', json: false, samples: [writeSongAsMidi(RICH.songs[0]!), MIDI], read: midi },
    {
      name: 'charts',
      json: false,
      samples: CHARTS.map(text),
      read: (bytes) => (readChart(untext(bytes)).channels.length > 0 ? 'taken' : 'refused'),
    },
    { name: 'envelopes', json: false, samples: [envelopes], read: (bytes) => outcome(readEnvelopes(bytes, 'x')) },
    { name: 'what was heard', json: false, samples: [writeHeard(heardSample())], read: beatsHeard },
    {
      name: 'recordings',
      json: false,
      samples: [WAV, AIFF, oggWithRate(44_100), flacWithRate(44_100)],
      read: async (bytes) => (await readTags(bytes), outcome(await analyse(bytes, 'x.wav', async () => 'go-on'))),
    },
    {
      name: 'music to play',
      json: false,
      samples: recordings.map((one) => one.slice(0, 20_000)),
      read: (bytes) => ((asMp4(bytes, 'mp3') ?? asMp4(bytes, 'ogg')) ? 'taken' : 'refused'),
    },
    {
      name: 'sACN',
      json: false,
      samples: SACN,
      read: (bytes) => (decodeSacn(bytes).kind === 'data' ? 'taken' : 'refused'),
    },
    {
      name: 'Art-Net',
      json: false,
      samples: [encodeArtDmx({ port: 1, physical: 0, sequence: 1, levels: new Uint8Array(512) }), encodeArtPoll()],
      read: (bytes) => (decodeArtNet(bytes).kind === 'dmx' ? 'taken' : 'refused'),
    },
    { name: 'OSC', json: false, samples: OSC, read: oscDone },
    { name: 'serial', json: false, samples: [encodeDmxFrame(new Uint8Array(512).fill(9))], read: serial },
  ];
}

/** Presses, knobs and decks. */
const OSC = [
  encodeOsc('/hovlix/look', 'si', ['Red', 1]),
  encodeOsc('/hovlix/look/2', 'f', [0]),
  encodeOsc('/hovlix/pad/1', 'T', [true]),
  encodeOsc('/hovlix/master', 'sd', ['Wash', 0.5]),
  encodeOsc('/hovlix/song', 's', [RICH.songs[0]!.title]),
  encodeOsc('/hovlix/tempo', 'f', [124]),
  encodeOsc('/hovlix/section', 's', ['next']),
  encodeOsc('/tablet/1', 'f', [0.7]),
  encodeOsc('/tablet/2', 'i', [1]),
  writeDeckWord({ deck: 1, says: 'at', position: 12.5, rate: 1.02, bpm: 124, beat: 25 }),
  writeDeckWord({ deck: 2, says: 'track', track: { title: 'Red', by: 'Nobody', length: 200 } }),
];

const BOUND: Show = {
  ...RICH,
  controls: [
    Control.parse({
      kind: 'fader',
      id: 'fader',
      name: 'Fader',
      source: { by: 'osc', address: '/tablet/1' },
      turns: { turn: 'hand', role: 'wash', what: 'colour' },
      soft: false,
    }),
    Control.parse({
      kind: 'switch',
      id: 'switch',
      name: 'Switch',
      source: { by: 'osc', address: '/tablet/2' },
      does: { press: [{ act: 'look', look: 'red' }, { act: 'tap' }], hold: [{ act: 'blackout', to: 'toggle' }] },
    }),
  ],
};

/** Each try presses, moves and tells of decks, and what is on then gives light. */
function oscDone(bytes: Uint8Array): Outcome {
  const packet = decodeOsc(bytes);
  if (packet.kind === 'bad') return 'refused';
  const never = () => () => undefined;
  const line = testHost(BOUND, () => 100);
  const host = { ...line.host, time: { after: never, every: never } };
  const nothing = () => undefined;
  const surface = controlSurface({ host, clock: () => 100, onFelt: nothing, onHappened: nothing });
  const { hear } = oscHearer({ host, surface });
  const decks = playerFollower();
  let refused = 0;
  for (const message of packet.messages) {
    const word = readDeckWord(message);
    if (word && !('why' in word)) decks.take(word, seconds(100), '10.0.0.1');
    else if (hear(message, 100).by === 'bad') refused++;
  }
  decks.look({ show: BOUND, live: line.state(), now: seconds(100) }, true);
  lit(RICH_PROGRAM, [line.state()]);
  return refused > 0 ? 'refused' : 'taken';
}

/** Four seconds in which a beat is heard each half second. */
function heardSample(): Heard {
  const odds = Float32Array.from({ length: 200 }, (_, i) => (i % 25 === 0 ? 2 : -4));
  const change = Float32Array.from({ length: 200 }, (_, i) => (i % 100 === 0 ? 1 : 0));
  return { compound: false, sixEight: false, odds: { frames: 200, beat: odds, downbeat: odds, section: odds }, change };
}

function beatsHeard(bytes: Uint8Array): Outcome {
  const read = readHeard(bytes, 'x');
  if (read.ok) gridOf(read.value);
  return outcome(read);
}

const CHARTS = [
  '1 Dimmer 0-255\n2 Red\n3 Green\n4 Blue\n5 Strobe 0-9 open 10-255 slow to fast',
  'Ch 1/2 Pan 540\nCh 3/4 Tilt 250\n5: Colour wheel 0-9 open, 10-19 red, 20-29 blue\n6 Gobo 0-7 open 8-15 stars',
];
