// The light ribbon: what the rig will really show over a stretch of a song, role by role.

import { srgbFromLinear } from '../colour';
import { AT_REST } from '../live/state';
import { seconds, type Seconds } from '../units';
import { LAMP_STRIDE, lampsFor, readLamps } from './lamps';
import { frameFor, type Program } from './program';
import { render } from './render';

/**
 * RGBA pixels, `roles.length` rows of `times.length` columns: the mean light of a role's lamps at each moment.
 * @param times seconds of the music.
 */
export function ribbon(
  program: Program,
  song: string,
  roles: readonly string[],
  times: readonly Seconds[],
): Uint8ClampedArray<ArrayBuffer> {
  const out = new Uint8ClampedArray(roles.length * times.length * 4);
  const frame = frameFor(program);
  const lamps = lampsFor(program);
  const casts = roles.map((role) =>
    program.heads.flatMap((head, i) =>
      head.profile.kind !== 'hazer' && head.roles.some((one) => one === role) ? [i] : [],
    ),
  );
  const still = { id: song as never, playing: false, at: seconds(0), rate: 1, since: seconds(0) };
  times.forEach((songTime, column) => {
    render(program, { ...AT_REST, song: { ...still, songTime } }, seconds(0), frame);
    readLamps(program, frame, lamps);
    casts.forEach((cast, row) => {
      const at = (row * times.length + column) * 4;
      for (let k = 0; k < 3; k++) {
        let sum = 0;
        for (const head of cast) sum += lamps[head * LAMP_STRIDE + k]!;
        out[at + k] = srgbFromLinear(cast.length ? sum / cast.length : 0) * 255;
      }
      out[at + 3] = 255;
    });
  });
  return out;
}
