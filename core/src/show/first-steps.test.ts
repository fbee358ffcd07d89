// From an empty show to one that is ready for the night.

import { compile, frameFor, render } from '../engine';
import { firstLooks } from '../light';
import { playedAlone } from '../live';
import { fixtureLibrary, lampsOf, roleFor } from '../rig';
import { looksInTurn, barSpan, lookLanes } from '../song';
import { testShow } from '../testing/show';
import { beatOfBar, timeAt } from '../time';
import { address, id, seconds, universe } from '../units';
import { edit, emptyShow, legal, nextStep, readShow, rigInUse, type Command, type Show } from '.';

const own = { id: 'mine', name: 'Tin Lantern', rig: 'hall' };
const made = (show: Show, ...commands: Command[]) => commands.reduce((now, one) => edit(now, one).show, show);

test('each step leads to the next, and at its end the lamps follow the song', () => {
  const empty = emptyShow(own);
  expect([nextStep(empty, false), nextStep(empty, true)]).toEqual(['connect', 'lamps']);
  const profile = fixtureLibrary().find((one) => one.kind === 'par')!;
  const rig = rigInUse(empty);
  const wanted = { profile, mode: profile.modes[0]!, count: 4, universe: universe(1) };
  const fixtures = [...lampsOf(rig, wanted, address(1), (n) => `l${n}`)];
  const role = roleFor(rig, [], [], profile, 'role');
  const lamps = made(empty, { type: 'add-lamps', rig: rig.id, profile, fixtures, role });
  expect(nextStep(lamps, false)).toBe('looks');
  let n = 0;
  const looks = firstLooks(rigInUse(lamps).casting, 1, () => `look${n++}`);
  expect(looks.map(({ name, number }) => `${number} ${name}`)).toEqual(['1 Full', '2 Blue', '3 Slow wave']);
  const lit = made(lamps, { type: 'together', commands: looks.map((look) => ({ type: 'store-look', look })) });
  expect(nextStep(lit, true)).toBe('song');
  const song = {
    ...testShow().songs[0]!,
    id: id<'Song'>('own'),
    lanes: [{ id: id<'Lane'>('looks'), name: 'Looks', type: 'looks' as const, blend: 'highest' as const, clips: [] }],
    sections: [],
  };
  const clips = looksInTurn(
    song,
    looks.map((look) => look.id),
    (i) => `clip${i}`,
  );
  const whole = made(
    lit,
    { type: 'add-song', added: song },
    { type: 'together', commands: clips.map((clip) => ({ type: 'lay-clip', song: song.id, lane: id('looks'), clip })) },
  );
  expect(nextStep(whole, true)).toBeUndefined();
  expect(legal(whole, new WeakSet()).ok).toBe(true);
  expect(readShow(JSON.parse(JSON.stringify(whole)), 'x')).toEqual({ ok: true, value: whole });
  // No bar of the song is dark, and nothing lies beyond its end.
  const { first, last } = barSpan(song);
  const [lane] = lookLanes(whole.songs[0]!);
  expect([lane!.clips[0]!.from, lane!.clips.at(-1)!.to]).toEqual([
    beatOfBar(song.meter, first),
    beatOfBar(song.meter, last + 1),
  ]);
  const program = compile(whole);
  const frame = frameFor(program);
  for (let bar = first; bar < last; bar++) {
    render(program, playedAlone(song.id), seconds(timeAt(song.tempo, beatOfBar(song.meter, bar)) + 0.4), frame);
    expect(frame.some((byte) => byte > 30)).toBe(true);
  }
});

test('first looks are made for the roles that somebody plays, and no others', () => {
  const casting = [
    { role: id<'Role'>('a'), fixtures: [id<'Fixture'>('x')] },
    { role: id<'Role'>('b'), fixtures: [] },
  ];
  let n = 0;
  for (const look of firstLooks(casting, 7, () => `l${n++}`))
    expect(look.values.map(({ role }) => role)).toEqual(['a']);
});
