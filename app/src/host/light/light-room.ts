// The light worker's work, host-free but for its clock and its voice: compiles, renders, reads lamps back.

import {
  LAMP_STRIDE,
  compile,
  explain,
  frameFor,
  lampsFor,
  limiter,
  programKeeper,
  readLamps,
  render,
  ribbon,
  type Program,
} from '@hovlix/core/engine';
import { AT_REST, hearingWith, playedAlone, reduced, type LiveState } from '@hovlix/core/live';
import { LOUDNESS_BANDS } from '@hovlix/core/music';
import { rigInUse, type Show } from '@hovlix/core/show';
import { id, seconds } from '@hovlix/core/units';
import { steady, type LookValue } from '@hovlix/core/light';
import type { FromLight, ToLight } from './light-messages';
import type { StageWindow } from './stage-window';

export type LightRoom = {
  readonly hear: (message: ToLight) => void;
  /** @returns whether there is a next frame to work out before anything more is heard. */
  readonly frame: () => boolean;
};

/** They come eleven times a second; without news for this long, nobody else sends there any more. */
const THEIRS_FOR = 0.5;

/**
 * @param clock this machine's clock in seconds. @param say posts a message; buffers in `hand` are given away.
 * @param stage paints what is lit.
 */
export function lightRoom(
  clock: () => number,
  say: (message: FromLight, hand?: ArrayBuffer[]) => void,
  stage: StageWindow,
): LightRoom {
  const keeper = programKeeper();
  const safe = limiter();
  let program: Program | undefined;
  let bytes = new Uint8Array(0);
  /** The show whose lamps the page knows. */
  let told: Show | undefined;
  let state: LiveState = AT_REST;
  let offset = 0;
  /** While a lamp strobes, the same bytes are not the same picture. */
  let flashing = false;
  let framing = false;
  let spare: Float32Array<ArrayBuffer>[] = [];
  /** The lamps as they are lit, for the stage. */
  let lamps = new Float32Array(0);
  /** The bytes last shown; none while somebody has yet to see any. */
  let shown = new Uint8Array(0);
  /** The page has yet to see the lamps as they are. */
  let owed = false;
  /** Universes that another program sends in, as they left the computer, and when that was heard. */
  const theirs = new Map<number, { readonly levels: Uint8Array; readonly at: number }>();
  const now = () => seconds(clock() + offset);

  const hear = (message: ToLight): void => {
    switch (message.type) {
      case 'sound':
        // The lamps stay the same, so the page hears nothing of it; several come one after the other.
        return keeper.hear([message]);
      case 'show':
        return take(() => keeper.take(message.show));
      case 'edit':
        return keeper.show() && take(() => keeper.edit(message.ops));
      case 'clock':
        offset = message.offset;
        return;
      case 'state':
        state = message.state;
        return;
      case 'entry':
        state = reduced(state, message.entry);
        return;
      case 'theirs':
        theirs.set(message.universe, { levels: message.levels, at: clock() });
        return;
      case 'frames':
        framing = message.on;
        shown = new Uint8Array(0);
        return;
      case 'stage':
      case 'stage-size':
      case 'stage-marked':
      case 'stage-off':
      case 'stage-gone':
        if (message.type === 'stage') shown = new Uint8Array(0);
        return stage.hear(message);
      case 'spent':
        if (program && message.lamps.length === lampsFor(program).length && spare.length < 3) spare.push(message.lamps);
        return;
      default:
        return answer(message);
    }
  };

  /** Takes a show as it is now. The page hears of its lamps only where they are others than before. */
  const take = (change: () => void): void => {
    change();
    const next = keeper.show()!;
    keeper.work();
    program = keeper.program();
    // One that cannot be made leaves the last one, and its lamps.
    if (!program || keeper.trouble() !== null) return;
    const before = told;
    told = next;
    const same = before && before.rigs === next.rigs && before.rig === next.rig && before.profiles === next.profiles;
    shown = new Uint8Array(0);
    if (same) return;
    bytes = frameFor(program);
    spare = [lampsFor(program), lampsFor(program), lampsFor(program)];
    lamps = lampsFor(program);
    const heads = headsOf(program);
    const { shapes } = rigInUse(next);
    stage.take(heads, shapes);
    say({
      type: 'heads',
      heads,
      shapes,
      universes: program.universes,
      notes: program.notes,
    });
  };

  const answer = (message: Extract<ToLight, { id: number }>): void => {
    const reply = (value: Extract<FromLight, { type: 'answer' }>['value'], hand?: ArrayBuffer[]) =>
      say({ type: 'answer', id: message.id, value }, hand);
    if (message.type === 'portrait') return portrait(message.id, message.show);
    // Of all that was told before it was asked.
    if (keeper.work()) program = keeper.program();
    if (!program) return reply(null);
    if (message.type === 'explain') {
      const { when } = message;
      const [live, at] = when === 'now' ? [state, now()] : [playedAlone(id<'Song'>(when.song)), seconds(when.time)];
      return reply(explain(program, live, at, id<'Fixture'>(message.fixture)) ?? null);
    }
    if (message.type === 'ribbon') {
      const pixels = ribbon(program, message.song, message.roles, message.times.map(seconds));
      return reply(pixels, [pixels.buffer]);
    }
    const lamps = pictureOf(program, message.look);
    return reply(lamps, [lamps.buffer]);
  };

  /** A show in the light of its first look, or all lamps at full where it has none. */
  const portrait = (id: number, of: Show): void => {
    const made = compile(of);
    const look = of.looks[0];
    const all = rigInUse(of).fixtures.map((fixture) => fixture.id);
    const full: LookValue[] = all.length > 0 ? [{ lamps: all.slice(0, 2000), level: { type: 'hold', value: 1 } }] : [];
    const lamps = pictureOf(made, look ? look.id : full);
    say({ type: 'portrait', id, heads: headsOf(made), shapes: rigInUse(of).shapes, lamps }, [lamps.buffer]);
  };

  /** One frame for the stage, and for the page, if it asked for frames and has given an array back. */
  const frame = (): boolean => {
    const made = keeper.work();
    if (made) program = keeper.program();
    const watched = framing || stage.open();
    if (program && watched) light(program);
    return watched || made;
  };

  const light = (program: Program): void => {
    if (changed(program)) {
      readLamps(program, bytes, lamps);
      flashing = false;
      for (let at = 6; at < lamps.length; at += LAMP_STRIDE) if (lamps[at]! > 0) flashing = true;
      if (shown.length === bytes.length) shown.set(bytes);
      else shown = Uint8Array.from(bytes);
      owed = true;
      stage.lit(lamps);
    }
    if (!owed || !framing || spare.length === 0) return;
    owed = false;
    const out = spare.pop()!;
    out.set(lamps);
    say({ type: 'frame', lamps: out }, [out.buffer]);
  };

  /** Renders the bytes of now. @returns whether they look different from those before. */
  const changed = (program: Program): boolean => {
    const at = now();
    render(program, state, at, bytes);
    safe.hold(program, bytes, at);
    for (const [universe, { levels, at }] of theirs) {
      const place = program.universes.indexOf(universe);
      if (clock() - at > THEIRS_FOR) theirs.delete(universe);
      else if (place >= 0) bytes.set(levels, place * 512);
    }
    return flashing || !same(bytes, shown);
  };

  return { hear, frame };
}

function same(a: Uint8Array, b: Uint8Array): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}

/** Pictures show followers as they are in the loudest moment: a look that waits for a sound is not a dark one. */
const LOUD = hearingWith(
  null,
  'picture',
  { levels: new Array<number>(LOUDNESS_BANDS).fill(255), strokes: { kick: 1, snare: 1, hat: 1 } },
  seconds(0),
);

/** A look alone on the rig, at full, as it is on its first beat. */
function pictureOf(program: Program, look: string | readonly LookValue[]): Float32Array<ArrayBuffer> {
  const bytes = frameFor(program);
  const lamps = lampsFor(program);
  const alone: LiveState =
    typeof look === 'string'
      ? { ...AT_REST, hearing: LOUD, standing: [{ look: id<'Look'>(look), on: true, ramp: steady(1) }] }
      : { ...AT_REST, hearing: LOUD, hands: look.map((value) => ({ value, on: true, ramp: steady(1) })) };
  render(program, alone, seconds(0), bytes);
  readLamps(program, bytes, lamps);
  return lamps;
}

function headsOf(program: Program): Extract<FromLight, { type: 'heads' }>['heads'] {
  return program.heads.map(({ fixture, profile, cell, cells, mount }) => ({
    fixture: fixture.id,
    number: fixture.number,
    kind: profile.kind,
    beamAngle: profile.beamAngle,
    output: profile.output,
    cell,
    cells,
    mount,
    patterns: profile.gobos.map(({ pattern }) => pattern),
  }));
}
