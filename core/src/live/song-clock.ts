// Where a song is: it plays on, comes round in a loop, or goes on from another place when it reaches one.

import { seconds, type Seconds } from '../units';

type Span = { readonly from: Seconds; readonly to: Seconds };

/** What the state knows of the song that is on. At `at` of the conductor's clock it was at `songTime`. */
export type SongClock = {
  readonly playing: boolean;
  readonly songTime: Seconds;
  readonly at: Seconds;
  readonly rate: number;
  /** Comes again and again, once the song is before its end. */
  readonly loop?: Span | undefined;
  /** At `when` of the music it goes on from `to`, in that loop. */
  readonly jump?: Jump | undefined;
  /** Where it was at `at` when it jumped away: its light there goes on, and gives way within `fade` seconds. */
  readonly left?: Left | undefined;
};

type Jump = {
  readonly when: Seconds;
  readonly to: Seconds;
  readonly loop?: Span | undefined;
  readonly fade?: Seconds | undefined;
};
type Left = { readonly songTime: Seconds; readonly at: Seconds; readonly fade: Seconds };

/** Whether a song's light is to be seen: paused, until a look was chosen by hand. */
export const isLit = (
  song: { readonly playing: boolean; readonly unlit?: Seconds | undefined },
  at: Seconds,
): boolean => song.playing || song.unlit === undefined || at < song.unlit;

/** Where the song is at a moment, in seconds of its music. Allocates nothing. */
export function songTimeAt(song: SongClock, at: Seconds): Seconds {
  if (!song.playing) return song.songTime;
  const straight = song.songTime + (at - song.at) * song.rate;
  const { jump, loop } = song;
  if (jump !== undefined && hasJumped(song, at)) return seconds(roundIn(jump.loop, jump.to, straightAfter(song, at)));
  return seconds(roundIn(loop, song.songTime, straight));
}

/**
 * The place that was left in a jump, going on straight, while its light still fades.
 * @param out filled with how much of the light is that place's, 0…1, and where it is by now. Allocates nothing.
 */
export function leftAt(song: SongClock, at: Seconds, out: { share: number; songTime: number }): void {
  const { jump, left } = song;
  out.share = 0;
  if (jump?.fade && song.playing && hasJumped(song, at)) {
    const since = (straightAfter(song, at) - jump.to) / song.rate;
    out.share = 1 - since / jump.fade;
    out.songTime = jump.when + since * song.rate;
  } else if (left && at >= left.at) {
    out.share = left.fade > 0 ? 1 - (at - left.at) / left.fade : 0;
    out.songTime = left.songTime + (at - left.at) * song.rate;
  }
  if (out.share < 0) out.share = 0;
}

/** The jump that is still to come. */
export function jumpAhead<Song extends SongClock>(song: Song, at: Seconds): Song['jump'] {
  return song.playing && song.jump && !hasJumped(song, at) ? song.jump : undefined;
}

/** Two ways to reckon the same bar line agree to within this, in seconds: far below a frame, far above rounding. */
const SAME_LINE = 1e-4;

/**
 * How far it is to the jump, counted from the anchor: where the place lies behind in a loop, it is reached the next time
 * round.
 */
function distanceToJump({ songTime, loop, jump }: SongClock): number {
  const ahead = jump!.when - songTime;
  const within = loop === undefined || songTime >= loop.to || jump!.when <= loop.to + SAME_LINE;
  if (ahead >= 0 && within) return ahead;
  return loop !== undefined && within && songTime < loop.to && jump!.when >= loop.from
    ? ahead + (loop.to - loop.from)
    : Infinity;
}

const hasJumped = (song: SongClock, at: Seconds): boolean => (at - song.at) * song.rate >= distanceToJump(song);

const straightAfter = (song: SongClock, at: Seconds): number =>
  song.jump!.to + (at - song.at) * song.rate - distanceToJump(song);

/** A place counted straight on, brought back into a loop that was entered from before its end. */
function roundIn(loop: Span | undefined, from: number, straight: number): number {
  if (loop === undefined || from >= loop.to || straight < loop.to) return straight;
  return loop.from + ((straight - loop.to) % (loop.to - loop.from));
}

/** The song as it stands at a moment: anchored there, a jump that was made forgotten. */
export function songAt<Song extends SongClock>(song: Song, at: Seconds): Song {
  const songTime = songTimeAt(song, at);
  if (!song.playing) return song;
  if (!song.jump || !hasJumped(song, at)) return { ...withoutGone(song, at), songTime, at };
  return landed(song, songTime, at, straightAfter(song, at) - song.jump.to);
}

/** The song behind its jump. @param past seconds of the music since the jump. */
function landed<Song extends SongClock>(song: Song, songTime: Seconds, at: Seconds, past: number): Song {
  const { jump, loop: _, left: __, ...rest } = song;
  const { when, loop, fade } = jump!;
  const left = fade ? { songTime: when, at: seconds(at - past / song.rate), fade } : undefined;
  return { ...rest, songTime, at, ...(loop ? { loop } : {}), ...(left ? { left } : {}) } as unknown as Song;
}

/** A place that was left is forgotten once its light is gone. */
function withoutGone<Song extends SongClock>(song: Song, at: Seconds): Song {
  if (!song.left || at < song.left.at + song.left.fade) return song;
  const { left: _, ...rest } = song;
  return rest as unknown as Song;
}

/** A sound that is so little past an end is late or early at it, in seconds; further, it was moved there. */
const JUST_PAST = 1;

/**
 * The song put where its sound is. A sound that is a little ahead must not slip past the end of a loop, or past the place
 * of a jump: it is taken round, or along, as the song itself would be.
 */
export function anchoredAt<Song extends SongClock>(before: Song, songTime: Seconds, at: Seconds): Song {
  const song = songAt(before, at);
  const { loop, jump } = song;
  const passed = (end: Seconds) => song.songTime < end && songTime >= end && songTime < end + JUST_PAST;
  if (jump && passed(jump.when)) {
    const past = songTime - jump.when;
    return landed(song, seconds(jump.to + past), at, past);
  }
  if (loop && passed(loop.to)) return { ...song, songTime: seconds(roundIn(loop, loop.from, songTime)), at };
  return { ...song, songTime, at };
}

/** A loop that one is in, or has not come to, goes on when the song is taken up inside it. */
export function loopKept(
  before: (SongClock & { readonly id: string }) | null,
  { song, from }: { readonly song: string; readonly from: Seconds },
): { readonly loop?: Span } {
  const loop = before?.id === song && !before.playing ? before.loop : undefined;
  return loop && from >= loop.from - 1e-3 && from < loop.to ? { loop } : {};
}

/** Sought by hand: a jump is off, and so is a loop that one leaves. */
export function soughtTo<Song extends SongClock>(song: Song, to: Seconds): Song {
  const { jump: _, left: __, loop, ...rest } = song;
  const stays = loop && to >= loop.from && to < loop.to;
  return { ...rest, songTime: to, ...(stays ? { loop } : {}) } as unknown as Song;
}

export function looped<Song extends SongClock>(song: Song, loop: Span | null): Song {
  const { loop: _, ...rest } = song;
  return { ...rest, ...(loop ? { loop } : {}) } as unknown as Song;
}

/** @param jump in the loop that is on, or ahead: one that lies behind is never come to. */
export function jumping<Song extends SongClock>(song: Song, jump: NonNullable<Song['jump']> | null): Song {
  const { jump: _, ...rest } = song;
  return { ...rest, ...(jump ? { jump } : {}) } as unknown as Song;
}
