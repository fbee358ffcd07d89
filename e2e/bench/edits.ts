// What an edit costs in a show of 500 lamps, 40 looks and 20 songs, from the change to a program that can be rendered.

import { atOnce, compiler, programKeeper } from '@hovlix/core/engine';
import { diff, edit, type Show } from '@hovlix/core/show';
import { id } from '@hovlix/core/units';
import { bigShow } from './big-show';

/** 40 looks and 20 songs made of what the big show has of them; flash safety as in a new show. */
function evening(): Show {
  const base = bigShow(16, 500);
  const looks = Array.from({ length: 40 }, (_, i) => {
    const look = base.looks[i % base.looks.length]!;
    return i < base.looks.length ? look : { ...look, id: id<'Look'>(`more-${i}`), number: 100 + i };
  });
  const songs = Array.from({ length: 20 }, (_, i) => ({
    ...base.songs[0]!,
    id: id<'Song'>(i === 0 ? base.songs[0]!.id : `song-${i}`),
  }));
  return { ...base, looks, songs, safety: { on: true, most: 3 } };
}

const timed = (work: () => void): number => {
  const from = performance.now();
  work();
  return performance.now() - from;
};
const middle = (times: number[]) => times.sort((a, b) => a - b)[times.length >> 1]!;

export function benchEdits(note: (what: string, value: string, target: string) => void): void {
  const show = evening();
  const fresh = Array.from({ length: 5 }, () => timed(() => atOnce(compiler()(show))));
  note('compile afresh, 500 lamps, 40 looks, 20 songs', `${middle(fresh).toFixed(1)} ms`, '<= 150 ms, between frames');
  const keeper = programKeeper();
  keeper.take(show);
  while (keeper.work());
  const longest: number[] = [];
  const edits = (change: (show: Show, n: number) => Show): number =>
    middle(
      Array.from({ length: 30 }, (_, n) => {
        const before = keeper.show()!;
        const ops = diff(before, change(before, n));
        return timed(() => {
          keeper.edit(ops);
          for (
            let last = performance.now();
            keeper.work(() => {
              longest.push(performance.now() - last);
              last = performance.now();
              return false;
            });
          );
        });
      }),
    );
  const look = edits((now, n) => {
    const one = now.looks[5]!;
    const values = one.values.map((value) => ({ ...value, level: { type: 'hold' as const, value: (n % 10) / 10 } }));
    return edit(now, { type: 'store-look', look: { ...one, values } }).show;
  });
  note('an edit of one look in it', `${look.toFixed(1)} ms`, '<= 10 ms');
  const clip = edits((now, n) => {
    const [song] = now.songs;
    const lanes = song!.lanes.map((lane, i) =>
      i > 0 || lane.type !== 'looks'
        ? lane
        : { ...lane, clips: lane.clips.map((one, k) => (k === 0 ? { ...one, fadeIn: (n % 5) / 10 } : one)) },
    );
    return { ...now, songs: [{ ...song!, lanes } as Show['songs'][number], ...now.songs.slice(1)] };
  });
  note('a clip changed in it', `${clip.toFixed(1)} ms`, '<= 5 ms');
  note('longest slice of such work', `${Math.max(...longest).toFixed(1)} ms`, '<= 5 ms, or a frame is late');
}
