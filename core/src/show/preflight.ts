// What would go wrong tonight: of the set, the pedals, the rig in use, and of the computer and screen it is played on.

import { conflictsOf, GESTURES, setInUse, sourceWords, type Control, type SetList } from '../gig';
import { banksOf } from '../light';
import { overlaps, patchedFixtures } from '../rig';
import { recordingsOf, type Song } from '../song';
import { rigInUse, type Show } from './schema';
import { songRemarks } from './song-check';

/** Where it is put right. */
export type Fix =
  | { readonly place: 'set' | 'banks' | 'pedals' | 'connect' | 'rig' | 'safety' | 'timetable' }
  | { readonly place: 'song'; readonly song: Song['id'] };

export type Remark = {
  /** `stops` would be missed by the audience; `look` is worth a look. */
  readonly weight: 'stops' | 'look';
  readonly text: string;
  readonly fix?: Fix;
};

/** What only the host knows. Null where it cannot be known. */
export type Facts = {
  /** Hashes of the recordings that are on this device. */
  readonly music: ReadonlySet<string>;
  /** MIDI devices that are plugged in; null where MIDI is off. */
  readonly devices: readonly string[] | null;
  /** Whether OSC is listened to. */
  readonly osc: boolean;
  /** Whether the timetable is followed; null without a computer that could. */
  readonly timetable: boolean | null;
  /** Why outputs are deaf, in words; null without a computer that sends. */
  readonly outputs: { readonly on: number; readonly troubles: readonly string[] } | null;
  readonly sending: boolean;
  readonly blackout: boolean;
  /** Whether the screen can be kept awake; its battery, 0…1, while it is not charging. */
  readonly awake: boolean;
  readonly battery: number | null;
};

/** All of it, what the audience would miss first. */
export function preflight(show: Show, facts: Facts): readonly Remark[] {
  const set = setInUse(show);
  const all = [
    ...computer(facts),
    ...setRemarks(show, set, facts),
    ...rigRemarks(show),
    ...pedalRemarks(show, facts),
    ...bankRemarks(show),
    ...timetableRemarks(show, facts),
    ...safetyRemarks(show),
  ];
  return [...all.filter(({ weight }) => weight === 'stops'), ...all.filter(({ weight }) => weight === 'look')];
}

function* computer({ outputs, sending, blackout, awake, battery }: Facts): Generator<Remark> {
  const connect: Fix = { place: 'connect' };
  if (outputs === null)
    yield { weight: 'stops', text: 'No DMX leaves: this page is not served by Hovlix on a computer.', fix: connect };
  else if (outputs.on === 0) yield { weight: 'stops', text: 'No output is on.', fix: connect };
  for (const trouble of outputs?.troubles ?? []) yield { weight: 'stops', text: trouble, fix: connect };
  if (!sending) yield { weight: 'stops', text: 'Master output is off: nothing is sent.', fix: connect };
  if (blackout) yield { weight: 'look', text: 'Blackout is on.' };
  if (!awake)
    yield { weight: 'look', text: 'This browser cannot keep the screen awake: turn off its sleep for tonight.' };
  if (battery !== null && battery < LOW_BATTERY)
    yield { weight: 'look', text: `The battery is at ${Math.round(battery * 100)} % and not charging.` };
}

const LOW_BATTERY = 0.4;

function* setRemarks(show: Show, set: SetList, { music }: Facts): Generator<Remark> {
  if (set.entries.length === 0)
    yield { weight: 'stops', text: `The set “${set.name}” is empty.`, fix: { place: 'set' } };
  const seen = new Set<string>();
  for (const entry of set.entries) {
    if (entry.kind !== 'song') continue;
    const song = show.songs.find(({ id }) => id === entry.song);
    if (!song) continue;
    if (entry.stops === 'sections' && song.sections.length === 0)
      yield {
        weight: 'look',
        text: `The pedal is to stop at the sections of “${song.title}”, and it has none.`,
        fix: { place: 'song', song: song.id },
      };
    if (seen.has(song.id)) continue;
    seen.add(song.id);
    const missing = recordingsOf([song]).filter(({ hash }) => !music.has(hash));
    for (const { name } of missing)
      yield {
        weight: 'stops',
        text: `“${name}” of “${song.title}” is not on this device: its light plays without sound.`,
        fix: { place: 'song', song: song.id },
      };
    const remarks = songRemarks(show, song);
    if (remarks.length > 0)
      yield {
        weight: 'look',
        text: `“${song.title}”: ${remarks[0]!.text}${remarks.length > 1 ? ` And ${remarks.length - 1} more.` : ''}`,
        fix: { place: 'song', song: song.id },
      };
  }
}

function* rigRemarks(show: Show): Generator<Remark> {
  const rig = rigInUse(show);
  const fix: Fix = { place: 'rig' };
  if (rig.fixtures.length === 0) yield { weight: 'stops', text: `There are no lamps in “${rig.name}”.`, fix };
  const cast = new Set(rig.casting.filter(({ fixtures }) => fixtures.length > 0).map(({ role }) => role));
  const used = new Set(
    [
      ...show.looks.flatMap(({ values }) => values),
      ...show.chases.flatMap(({ steps }) => steps.flatMap(({ values }) => values)),
    ].flatMap(({ role }) => (role ? [role] : [])),
  );
  for (const { id, name } of show.roles)
    if (used.has(id) && !cast.has(id)) yield { weight: 'look', text: `No lamp of “${rig.name}” plays ${name}.`, fix };
  const clashes = overlaps(patchedFixtures(rig, show.profiles));
  if (clashes.length > 0) {
    const [a, b] = clashes[0]!;
    yield {
      weight: 'stops',
      text: `${a.name} and ${b.name} share DMX channels${clashes.length > 1 ? `, and ${clashes.length - 1} more pairs` : ''}.`,
      fix,
    };
  }
}

function* pedalRemarks({ controls }: Show, { devices, osc }: Facts): Generator<Remark> {
  const fix: Fix = { place: 'pedals' };
  const deaf = controls.filter(({ source }) => source === null).map(({ name }) => `“${name}”`);
  if (deaf.length > 0)
    yield {
      weight: 'stops',
      text: `Not learned yet, so that nothing presses ${deaf.length === 1 ? 'it' : 'them'}: ${listed(deaf)}.`,
      fix,
    };
  const idle = controls.filter(doesNothing).map(({ name }) => `“${name}”`);
  if (idle.length > 0)
    yield { weight: 'look', text: `${idle.length === 1 ? 'Does' : 'Do'} nothing yet: ${listed(idle)}.`, fix };
  const wanted = new Map(
    controls.flatMap(({ name, source }) =>
      source && 'device' in source && source.device !== null ? [[source.device, name] as const] : [],
    ),
  );
  const midi = controls.some(({ source }) => source !== null && 'channel' in source);
  if (midi && devices === null)
    yield { weight: 'stops', text: 'MIDI is off on this screen, and controls are bound to it.', fix };
  else if (midi && devices?.length === 0) yield { weight: 'stops', text: 'No MIDI device is plugged in.', fix };
  else
    for (const [device, name] of wanted)
      if (devices && !devices.includes(device))
        yield { weight: 'stops', text: `“${device}”, which has “${name}”, is not plugged in.`, fix };
  if (!osc && controls.some(({ source }) => source?.by === 'osc'))
    yield {
      weight: 'stops',
      text: 'OSC is not listened to, and controls are bound to it.',
      fix: { place: 'connect' },
    };
  for (const [a, b] of conflictsOf(controls))
    yield { weight: 'look', text: `“${a.name}” and “${b.name}” both hear ${sourceWords(a.source)}.`, fix };
}

const listed = (names: readonly string[]): string =>
  names.slice(0, 6).join(', ') + (names.length > 6 ? ` and ${names.length - 6} more` : '');

const doesNothing = (control: Control): boolean =>
  control.kind === 'switch' &&
  [control.does, ...(control.banks ?? []).map(({ does }) => does)].every((does) =>
    GESTURES.every((gesture) => does[gesture].length === 0),
  );

function* bankRemarks(show: Show): Generator<Remark> {
  for (const bank of banksOf(show))
    if (bank.pads.length === 0)
      yield { weight: 'look', text: `Bank “${bank.name}” has no pads.`, fix: { place: 'banks' } };
}

function* timetableRemarks({ events }: Show, { timetable }: Facts): Generator<Remark> {
  const fix: Fix = { place: 'timetable' };
  const idle = events.filter(({ begins, ends }) => begins.length + ends.length === 0).map(({ name }) => `“${name}”`);
  if (idle.length > 0)
    yield {
      weight: 'look',
      text: `${idle.length === 1 ? 'Does' : 'Do'} nothing by the clock yet: ${listed(idle)}.`,
      fix,
    };
  if (timetable === false && events.length > idle.length)
    yield { weight: 'look', text: 'This computer does not follow the timetable.', fix };
}

function* safetyRemarks({ safety }: Show): Generator<Remark> {
  if (!safety.on)
    yield { weight: 'look', text: 'Flash safety is off: strobes and hits are not limited.', fix: { place: 'safety' } };
}
