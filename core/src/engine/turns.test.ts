// Heads turn the nearest way from where they were: on lanes, in chases, and for looks that are on.

import fc from 'fast-check';
import { Chase } from '../light';
import { AT_REST, type LiveState } from '../live';
import { aimError } from '../rig';
import { edit, type Show } from '../show';
import { lookLanes } from '../song';
import { hold, look, panSpot, player, press, tiltSpot } from '../testing/stage';
import { songId, testShow } from '../testing/show';
import { beats, id, seconds, type Id } from '../units';

type Place = { readonly x: number; readonly y: number; readonly z: number };

/** The spot hangs at (0, 3, 4). A look for each place, and the places in turn on the song's only lane, four beats each. */
function pointing(places: readonly Place[]): Show {
  const made = places.reduce((show, place, i) => {
    const aimed = edit(show, { type: 'add-aim', aim: { id: id<'Aim'>(`a${i}`), name: `${i}`, ...place } }).show;
    const value = { role: 'movers', level: hold(1), aim: hold({ aim: `a${i}` }) };
    return edit(aimed, { type: 'store-look', look: { ...look([value]), id: id<'Look'>(`l${i}`), number: 20 + i } })
      .show;
  }, testShow());
  const clips = places.map((_, i) => ({
    id: id<'Clip'>(`c${i}`),
    look: id<'Look'>(`l${i}`),
    from: beats(i * 4),
    to: beats(i * 4 + 4),
  }));
  const [song] = made.songs;
  return { ...made, songs: [{ ...song!, lanes: [{ ...lookLanes(song!)[0]!, clips }] }] };
}

const mount = testShow().rigs[0]!.fixtures.find((fixture) => fixture.id === ('s' as Id<'Fixture'>))!.mount;
const turnOf = (bytes: Uint8Array) => ({ pan: panSpot(bytes), tilt: tiltSpot(bytes) });
const travel = (a: { pan: number; tilt: number }, b: { pan: number; tilt: number }) =>
  Math.abs(a.pan - b.pan) + Math.abs(a.tilt - b.tilt);
const still = (songTime: number): LiveState => ({
  ...AT_REST,
  song: { id: songId, playing: false, songTime: seconds(songTime), at: seconds(0), rate: 1, since: seconds(0) },
});

/** Two places to the side, either side of where a head would rather turn over than go on. */
const SIDE = [
  { x: -2, y: 3.4, z: 1 },
  { x: -2, y: 2.6, z: 1 },
];

test('on a lane a head goes on across the place where it would rather have turned over', () => {
  const play = player(pointing(SIDE));
  const [first, second] = [1, 3].map((at) => turnOf(play(still(at), 0)));
  expect(travel(first!, second!)).toBeLessThan(40);
  SIDE.forEach((place, i) => expect(aimError(mount, i === 0 ? first! : second!, place)).toBeLessThan(0.1));
  // On the way from one to the other the beam passes between the two, and nowhere else.
  const faded = pointing(SIDE);
  const slow = { ...faded, looks: faded.looks.map((one) => ({ ...one, fadeIn: beats(2) })) };
  const between = turnOf(player(slow)(still(2.5), 0));
  expect(aimError(mount, between, { x: -2, y: 3, z: 1 })).toBeLessThan(1);
});

test('looks pressed one after the other turn the nearest way, and keep it while they stand', () => {
  const play = player(pointing(SIDE));
  const first = press(AT_REST, { type: 'look-on', look: id('l0'), fade: seconds(0) }, 0);
  const both = press(first, { type: 'look-on', look: id('l1'), fade: seconds(0) }, 1);
  const alone = press(both, { type: 'look-off', look: id('l0'), fade: seconds(0) }, 2);
  const other = press(alone, { type: 'look-on', look: id('red'), fade: seconds(0) }, 3);
  const turns = [first, both, alone, other].map((state, i) => turnOf(play(state, i + 0.5)));
  expect(travel(turns[0]!, turns[1]!)).toBeLessThan(40);
  expect(turns[2]).toEqual(turns[1]);
  expect(turns[3]).toEqual(turns[1]);
  // By itself it would have gone the usual way.
  const usual = turnOf(play(press(AT_REST, { type: 'look-on', look: id('l1'), fade: seconds(0) }, 0), 1));
  expect(travel(turns[0]!, usual)).toBeGreaterThan(travel(turns[0]!, turns[1]!) + 90);
});

test('the steps of a chase follow one another the nearest way', () => {
  const steps = SIDE.map((_, i) => ({ id: `${i}`, look: `l${i}`, fade: 0, hold: 1 }));
  const chase = Chase.parse({ id: 'run', number: 1, name: 'Run', fadeIn: 0, fadeOut: 0, pace: 'seconds', steps });
  const play = player(edit(pointing(SIDE), { type: 'store-chase', chase }).show);
  const on = press(AT_REST, { type: 'look-on', look: id('run'), fade: seconds(0) }, 0);
  expect(travel(turnOf(play(on, 0.5)), turnOf(play(on, 1.5)))).toBeLessThan(40);
});

test('wherever places lie, each is met, no further away than by the usual way, and the same from whichever moment', () => {
  const metres = (low: number, high: number) => fc.double({ min: low, max: high, noNaN: true });
  const place = fc.record({ x: metres(-6, 6), y: metres(-4, 8), z: metres(0, 3) });
  fc.assert(
    fc.property(fc.array(place, { minLength: 2, maxLength: 6 }), (places) => {
      const play = player(pointing(places));
      const turns = places.map((_, i) => turnOf(play(still(i * 2 + 1), 0)));
      places.forEach((one, i) => {
        expect(aimError(mount, turns[i]!, one)).toBeLessThan(0.1);
        if (i === 0) return;
        const usual = turnOf(player(pointing([one]))(still(1), 0));
        expect(travel(turns[i - 1]!, turns[i]!)).toBeLessThanOrEqual(travel(turns[i - 1]!, usual) + 0.05);
      });
      expect(turnOf(play(still(1), 0))).toEqual(turns[0]);
    }),
    { seed: 7, numRuns: 60 },
  );
});
