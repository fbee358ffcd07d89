// What does not show is not worked out, and nobody can tell.

import fc from 'fast-check';
import { Chase } from '../light';
import { AT_REST, playedAlone, type LiveState } from '../live';
import { edit, type Show } from '../show';
import { lookLanes } from '../song';
import { hold, look, press, wave } from '../testing/stage';
import { songId, testShow } from '../testing/show';
import { beats, id, seconds } from '../units';
import { compile, explain, frameFor, render, type Program } from '.';

const WHITE = { x: 0.3127, y: 0.329 };
const LOOKS = [
  {
    id: 'all',
    values: ['wash', 'movers', 'bars'].map((role) => ({
      role,
      level: hold(0.7),
      colour: hold({ x: 0.2, y: 0.1 }),
      aim: hold({ pan: 30, tilt: 20 }),
    })),
  },
  {
    id: 'moving',
    values: ['wash', 'movers', 'bars'].map((role) => ({
      role,
      colour: hold(WHITE),
      aim: hold({ aim: 'singer' }),
      waves: [wave('hue', { low: 0, high: 90 }), wave('pan', { high: 20 })],
    })),
  },
  { id: 'some', values: [{ role: 'movers', level: hold(1), colour: hold({ x: 0.6, y: 0.3 }) }] },
  {
    id: 'timed',
    times: { colour: { in: 6 } },
    values: ['wash', 'movers', 'bars'].map((role) => ({ role, colour: hold({ x: 0.4, y: 0.5 }) })),
  },
] as const;
const CHASE = {
  id: 'run',
  number: 1,
  name: 'Run',
  fadeIn: 0,
  fadeOut: 0,
  pace: 'beats',
  steps: [
    { id: '1', look: 'all', fade: 0.5, hold: 0.5 },
    { id: '2', look: 'moving', fade: 0.5, hold: 0 },
  ],
};

type Laid = { readonly look: string | null; readonly length: number; readonly gap: number; readonly fade: number };

/** Lanes over one another, each with clips one after the other. */
function layered(lanes: readonly (readonly Laid[])[]): Show {
  const looks = LOOKS.reduce<Show>(
    (show, { id: name, values, ...more }, i) =>
      edit(show, {
        type: 'store-look',
        look: { ...look(structuredClone(values) as never, more), id: id<'Look'>(name), number: 30 + i },
      }).show,
    testShow(),
  );
  const show = edit(looks, { type: 'store-chase', chase: Chase.parse(CHASE) }).show;
  const [song] = show.songs;
  const laid = lanes.map((clips, lane) => {
    let at = 0;
    return {
      ...lookLanes(song!)[0]!,
      id: id<'Lane'>(`lane${lane}`),
      blend: (['highest', 'replace', 'add', 'multiply'] as const)[lane % 4]!,
      clips: clips.map((clip, i) => {
        const from = at + clip.gap;
        at = from + clip.length;
        return {
          id: id<'Clip'>(`${lane}-${i}`),
          look: clip.look === null ? null : id<'Look'>(clip.look),
          from: beats(from),
          to: beats(at),
          fadeIn: beats(clip.fade),
          fadeOut: beats(clip.fade),
        };
      }),
    };
  });
  return { ...show, songs: [{ ...song!, lanes: laid }] };
}

/** The same program, made to believe that everything shows. */
function thorough(show: Show): Program {
  const program = compile(show);
  for (const { sheet, chase } of program.plays.values())
    for (const one of [sheet, ...(chase?.sheets ?? [])]) one.covers.fill(0);
  for (const { lanes } of program.songs.values())
    for (const lane of lanes) if (lane.type === 'looks') for (const play of lane.plays) play?.sheet.covers.fill(0);
  return program;
}

const laid = fc.record({
  look: fc.constantFrom('all', 'moving', 'some', 'timed', 'red', 'run', null),
  length: fc.constantFrom(1, 2, 4),
  gap: fc.constantFrom(0, 0, 0, 1),
  fade: fc.constantFrom(0, 0.5, 3),
});

test('light is the same whether or not what is hidden was worked out, and explain tells of all of it', () => {
  const red = press(AT_REST, { type: 'look-on', look: id('kept'), fade: seconds(0) }, -5);
  fc.assert(
    fc.property(
      fc.array(fc.array(laid, { minLength: 1, maxLength: 5 }), { minLength: 1, maxLength: 4 }),
      fc.double({ min: 0, max: 8, noNaN: true }),
      (lanes, at) => {
        const show = layered(lanes);
        const state: LiveState = { ...playedAlone(songId), standing: red.standing };
        const [quick, plain] = [compile(show), thorough(show)];
        const [frame, other] = [frameFor(quick), frameFor(plain)];
        render(quick, state, seconds(at), frame);
        render(plain, state, seconds(at), other);
        quick.fields.forEach(({ values }, f) =>
          values.forEach((value, i) => expect(value).toBeCloseTo(plain.fields[f]!.values[i]!, 9)),
        );
        for (const { fixture } of quick.heads) {
          const told = explain(quick, state, seconds(at), fixture.id)!;
          const all = explain(plain, state, seconds(at), fixture.id)!;
          expect(told.bytes).toEqual(all.bytes);
          expect(told.contributions).toEqual(all.contributions);
        }
      },
    ),
    { seed: 5, numRuns: 150 },
  );
});

test('under a lane that sets all, colours are left alone, and levels still count', () => {
  const clip = (name: string): Laid => ({ look: name, length: 8, gap: 0, fade: 0 });
  const program = compile(layered([[clip('moving')], [clip('all')]]));
  render(program, playedAlone(songId), seconds(1), frameFor(program));
  const shows = Object.fromEntries(program.fields.map(({ name, shows: layer }) => [name, layer]));
  expect(shows).toMatchObject({ level: -1, colour: 1, aim: 1, move: 0 });
});
