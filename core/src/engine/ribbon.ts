// The light ribbon: what the rig will really show over a stretch of a song, role by role.

import { srgbFromLinear } from '../colour';
import { AT_REST } from '../live/live-state';
import { id, seconds, type Seconds } from '../units';
import { LAMP_STRIDE, STRIPS } from './lamp-numbers';
import { lampsFor, readLamps } from './lamps';
import { frameFor, type Program } from './program';
import { render } from './render';

/**
 * RGBA pixels, `roles.length * STRIPS` rows of `times.length` columns: the mean light of a strip's lamps at each moment.
 * @param times seconds of the music.
 */
export function ribbon(
  program: Program,
  song: string,
  roles: readonly string[],
  times: readonly Seconds[],
): Uint8ClampedArray<ArrayBuffer> {
  const out = new Uint8ClampedArray(roles.length * STRIPS * times.length * 4);
  const frame = frameFor(program);
  const lamps = lampsFor(program);
  const strips = roles.flatMap((role) => stripsOf(program, role));
  const still = { id: id<'Song'>(song), playing: false, at: seconds(0), rate: 1, since: seconds(0) };
  times.forEach((songTime, column) => {
    render(program, { ...AT_REST, song: { ...still, songTime } }, seconds(0), frame);
    readLamps(program, frame, lamps);
    strips.forEach((heads, row) => {
      const at = (row * times.length + column) * 4;
      for (let k = 0; k < 3; k++) {
        let sum = 0;
        for (const head of heads) sum += lamps[head * LAMP_STRIDE + k]!;
        out[at + k] = srgbFromLinear(heads.length ? sum / heads.length : 0) * 255;
      }
      out[at + 3] = 255;
    });
  });
  return out;
}

/** The heads of each strip of a role; of fewer lamps than strips, some are shown twice. */
function stripsOf({ heads, casts }: Program, role: string): readonly (readonly number[])[] {
  const cast = [...(casts.get(role) ?? [])].filter((head) => heads[head]!.profile.kind !== 'hazer');
  return Array.from({ length: STRIPS }, (_, strip) => {
    const from = Math.floor((strip * cast.length) / STRIPS);
    return cast.slice(from, Math.max(from + 1, Math.floor(((strip + 1) * cast.length) / STRIPS)));
  });
}
