import { createStore } from 'zustand/vanilla';
import { AT_REST, reduced, songTimeAt, type Action, type LiveState } from '@hovlix/core/live';
import type { Ending } from '@hovlix/core/song';
import { seconds } from '@hovlix/core/units';
import { testShow } from '../../../../core/src/testing/show';
import { player } from './player';

/** What a page's audio element does, as far as the player asks it. */
class FakeAudio {
  currentTime = 0;
  playbackRate = 1;
  paused = true;
  seeking = false;
  src = '';
  addEventListener = () => undefined;
  play = async () => void (this.paused = false);
  pause = () => void (this.paused = true);
}

let audio: FakeAudio;
let clock = 0;
let acted: Action[] = [];

/** A screen beside its conductor, with the song's music or without. */
function screen(music: boolean, ending?: Ending, nextMusic = 'a'.repeat(64)) {
  const live: { live: LiveState } = { live: AT_REST };
  const entries: { who: string; action: Action }[] = [];
  const conducting = {
    screen: 'me',
    store: createStore(() => live),
    now: () => seconds(clock),
    log: () => ({ entries }),
    act(action: Action, who = 'me') {
      acted.push(action);
      entries.push({ who, action });
      const { live: now } = conducting.store.getState();
      conducting.store.setState({ live: reduced(now, { seq: now.seq + 1, at: seconds(clock), who, action }) });
    },
  };
  const show = testShow();
  const song = {
    ...show.songs[0]!,
    ...(ending ? { ending } : {}),
    music: { hash: 'a'.repeat(64), name: 'x.wav', type: 'wav' as const, bytes: 1 },
  };
  const second = { ...song, id: 'second', music: { ...song.music, hash: nextMusic } };
  const document = { store: createStore(() => ({ show: { ...show, songs: [song, second] } })) };
  const repository = {
    hasMusic: async () => music,
    music: jest.fn(async (_hash: string) => (music ? { bytes: Uint8Array.of(1) } : undefined)),
  };
  const one = player(repository as never, document as never, conducting as never, async () => undefined);
  return { one, song, conducting, repository };
}

/** What waits for nothing but what is there already is done. */
async function ticks(): Promise<void> {
  for (let i = 0; i < 20; i++) await Promise.resolve();
}

/** Time passes, and the music with it. */
function pass(length: number): void {
  for (let at = 0; at < length; at += 0.01) {
    clock += 0.01;
    if (!audio.paused) audio.currentTime += 0.01 * audio.playbackRate;
    jest.advanceTimersByTime(10);
  }
}

beforeEach(() => {
  jest.useFakeTimers();
  clock = 100;
  acted = [];
  Object.assign(globalThis, {
    Audio: function Audio() {
      return (audio = new FakeAudio());
    },
  });
  let made = 0;
  URL.createObjectURL = () => `blob:${++made}`;
  URL.revokeObjectURL = () => undefined;
  performance.getEntriesByType = (() => []) as never;
});
afterEach(() => jest.useRealTimers());

test('a loop comes round to its start as often as it ends; ended, the music goes on', async () => {
  const { one, song } = screen(true);
  one.loopOver({ song: song.id, from: 4, to: 6 });
  await one.play(song, 4);
  pass(1.9);
  expect(acted.filter(({ type }) => type === 'seek')).toEqual([]);
  pass(4.3);
  expect(acted.filter(({ type }) => type === 'seek')).toEqual([
    { type: 'seek', to: 4 },
    { type: 'seek', to: 4 },
    { type: 'seek', to: 4 },
  ]);
  expect(audio.currentTime).toBeLessThan(4.4);
  one.loopOver(null);
  pass(4);
  expect(audio.currentTime).toBeGreaterThan(7.5);
});

test('a screen without the music loops what another one sounds', async () => {
  const { one, song, conducting } = screen(false);
  conducting.act({ type: 'play', song: song.id, from: seconds(4), sound: 'laptop' } as Action, 'laptop');
  one.loopOver({ song: song.id, from: 4, to: 6 });
  acted = [];
  pass(2.1);
  expect(acted).toEqual([{ type: 'seek', to: 4 }]);
});

test('slower: told once, with the place that is heard; the screen that sounds follows what another asks for', async () => {
  const { one, song, conducting } = screen(true);
  await one.play(song, 2);
  pass(1);
  one.slow(0.5);
  expect(acted.at(-1)).toMatchObject({ type: 'anchor', rate: 0.5, songTime: expect.closeTo(3, 1) });
  expect(audio.playbackRate).toBe(0.5);
  pass(2);
  expect(audio.currentTime).toBeCloseTo(4, 1);
  // In step all the way: nothing to correct.
  expect(acted.filter(({ type }) => type === 'anchor')).toHaveLength(1);
  conducting.act({ type: 'anchor', songTime: seconds(audio.currentTime), at: seconds(clock), rate: 0.75 }, 'phone');
  expect(audio.playbackRate).toBe(0.75);
});

test('a song that is started slower goes so from its start', async () => {
  const { one, song } = screen(true);
  one.slow(0.75);
  await one.play(song, 0);
  expect(audio.playbackRate).toBe(0.75);
  expect(acted.map(({ type }) => type)).toEqual(['play', 'anchor']);
});

test('at its end a song stops there; where it says so, the next one plays, once', async () => {
  const { one, song } = screen(true);
  await one.play(song, 58);
  acted = [];
  pass(3);
  expect(acted).toEqual([{ type: 'seek', to: 60 }, { type: 'pause' }]);
  const { one: other, song: first } = screen(true, { then: 'next' });
  await other.play(first, 58);
  acted = [];
  pass(2.6);
  await ticks();
  expect(acted).toEqual([{ type: 'play', song: 'second', from: 0, sound: 'me' }]);
});

test('where the song comes round or jumps, the sound goes there too, and nothing is corrected on the way', async () => {
  const { one, song, conducting } = screen(true);
  await one.play(song, 10);
  conducting.act({ type: 'loop', loop: { from: seconds(9), to: seconds(11) } });
  pass(1.2);
  expect(audio.currentTime).toBeCloseTo(9.2, 1);
  pass(2);
  expect(audio.currentTime).toBeCloseTo(9.2, 1);
  conducting.act({ type: 'jump', jump: { when: seconds(10), to: seconds(40) } });
  acted = [];
  pass(1.5);
  expect(audio.currentTime).toBeCloseTo(40.7, 1);
  expect(songTimeAt(conducting.store.getState().live.song!, seconds(clock))).toBeCloseTo(40.7, 1);
  for (const action of acted) expect(action.type).toBe('anchor');
});

test('a sound that runs ahead of the light stays in its loop, round after round', async () => {
  const { one, song, conducting } = screen(true);
  await one.play(song, 10);
  conducting.act({ type: 'loop', loop: { from: seconds(9), to: seconds(11) } });
  for (let n = 0; n < 400; n++) {
    pass(0.02);
    // A sound card that is a little fast.
    if (!audio.paused) audio.currentTime += 0.0004;
    expect(songTimeAt(conducting.store.getState().live.song!, seconds(clock))).toBeLessThan(11.001);
  }
  expect(audio.currentTime).toBeLessThan(11.05);
  expect(audio.currentTime).toBeGreaterThan(8.95);
});

test('a jump that the sound comes to first takes both along', async () => {
  const { one, song, conducting } = screen(true);
  await one.play(song, 10);
  conducting.act({ type: 'jump', jump: { when: seconds(12), to: seconds(40) } });
  for (let n = 0; n < 200; n++) {
    pass(0.02);
    if (!audio.paused) audio.currentTime += 0.0006;
  }
  expect(songTimeAt(conducting.store.getState().live.song!, seconds(clock))).toBeCloseTo(42, 0);
  expect(audio.currentTime).toBeCloseTo(42, 0);
});

describe('the page is loaded anew while its music plays', () => {
  const loadedAnew = (was: string) => {
    sessionStorage.setItem('hovlix-sounded', was);
    performance.getEntriesByType = (() => [{ type: 'reload' }]) as never;
  };
  afterEach(() => sessionStorage.clear());

  test('it sounds again where the song is by now, and leads it', async () => {
    const { one, song } = screen(true);
    await one.play(song, 3);
    expect(sessionStorage.getItem('hovlix-sounded')).toBe('me');
    loadedAnew('before');
    const { song: again, conducting } = screen(true);
    conducting.act({ type: 'play', song: again.id, from: seconds(8), sound: 'before' } as Action, 'before');
    await ticks();
    expect(audio.paused).toBe(false);
    expect(audio.currentTime).toBeCloseTo(8, 1);
    expect(conducting.store.getState().live.song).toMatchObject({ sound: 'me', playing: true });
  });

  test('where the browser wants a touch first, it is asked for, and the first one is enough', async () => {
    loadedAnew('before');
    const { one, song, conducting } = screen(true);
    audio.play = async () => {
      throw new DOMException('not allowed', 'NotAllowedError');
    };
    conducting.act({ type: 'play', song: song.id, from: seconds(8), sound: 'before' } as Action, 'before');
    await ticks();
    expect(one.store.getState().trouble).toMatch(/^The music stopped as the page was loaded anew\./);
    audio.play = async () => void (audio.paused = false);
    clock += 4;
    window.dispatchEvent(new Event('pointerup'));
    await ticks();
    expect(one.store.getState().trouble).toBeNull();
    expect(audio.currentTime).toBeCloseTo(12, 1);
    expect(conducting.store.getState().live.song!.sound).toBe('me');
  });

  test('a copy of the tab, and a page whose sound went elsewhere, take nothing', async () => {
    loadedAnew('before');
    performance.getEntriesByType = (() => [{ type: 'navigate' }]) as never;
    const copy = screen(true);
    copy.conducting.act({ type: 'play', song: copy.song.id, from: seconds(1), sound: 'before' } as Action, 'before');
    await ticks();
    expect(audio.paused).toBe(true);
    loadedAnew('before');
    const late = screen(true);
    late.conducting.act({ type: 'play', song: late.song.id, from: seconds(1), sound: 'laptop' } as Action, 'laptop');
    await ticks();
    expect(audio.paused).toBe(true);
  });
});

test('a song whose music comes late takes no sound from the one that was started after it', async () => {
  const { one, song, repository } = screen(true);
  let arrives: () => void = () => undefined;
  const late = new Promise<void>((resolve) => (arrives = resolve));
  repository.music.mockImplementation(async (hash: string) => {
    if (hash !== song.music.hash) await late;
    return { bytes: Uint8Array.of(1) };
  });
  const first = one.play({ ...song, music: { ...song.music, hash: 'b'.repeat(64) } }, 3);
  await one.play(song, 5);
  const sounds = audio.src;
  arrives();
  await first;
  expect([audio.src, audio.paused]).toEqual([sounds, false]);
});

describe('before it is asked for', () => {
  const OTHER = 'b'.repeat(64);
  const opens = (song: string, who?: string) => (conducting: ReturnType<typeof screen>['conducting']) =>
    conducting.act({ type: 'open-song', song, from: seconds(0) } as Action, who);

  test('the music of a song that was opened here is loaded, and starts without being read again', async () => {
    const { one, song, conducting, repository } = screen(true);
    opens(song.id)(conducting);
    await ticks();
    expect([audio.src, audio.paused]).toEqual([expect.stringMatching(/^blob:/), true]);
    const there = audio.src;
    await one.play(song, 2);
    expect([audio.src, audio.paused]).toEqual([there, false]);
    expect(repository.music).toHaveBeenCalledTimes(1);
  });

  test('a song started while its music is still read waits for that, and is loaded once', async () => {
    const { one, song, conducting, repository } = screen(true);
    let arrives: () => void = () => undefined;
    repository.music.mockImplementation(
      () => new Promise((resolve) => (arrives = () => resolve({ bytes: Uint8Array.of(1) }))),
    );
    opens(song.id)(conducting);
    const playing = one.play(song, 2);
    await ticks();
    arrives();
    await playing;
    expect([audio.src, audio.paused, audio.currentTime]).toEqual(['blob:1', false, 2]);
    expect(repository.music).toHaveBeenCalledTimes(1);
  });

  test('of a song that another screen opened nothing is read, unless this one sounds or is the one at hand', async () => {
    const { song, conducting, repository } = screen(true);
    opens(song.id, 'phone')(conducting);
    await ticks();
    expect(repository.music).not.toHaveBeenCalled();
    const { live } = conducting.store.getState();
    conducting.store.setState({ live: { ...live, programs: 'me', song: { ...live.song! } } });
    await ticks();
    expect(repository.music).toHaveBeenCalledTimes(1);
  });

  test('while a song plays the next one is read, and what sounds is left alone', async () => {
    const { one, song, repository } = screen(true, { then: 'next' }, OTHER);
    await one.play(song, 0);
    const { src } = audio;
    pass(2);
    expect(repository.music).toHaveBeenCalledTimes(1);
    pass(4);
    await ticks();
    expect(repository.music.mock.calls.map(([hash]) => hash)).toEqual([song.music.hash, OTHER]);
    expect([audio.src, audio.paused]).toEqual([src, false]);
    pass(55);
    await ticks();
    expect(audio.src).not.toBe(src);
    expect(repository.music).toHaveBeenCalledTimes(2);
  });

  test('music that was not here is looked for again when the song is started', async () => {
    const { one, song, conducting, repository } = screen(false);
    opens(song.id)(conducting);
    await ticks();
    expect(one.store.getState().trouble).toBeNull();
    repository.hasMusic = async () => true;
    repository.music.mockImplementation(async () => ({ bytes: Uint8Array.of(1) }));
    await one.play(song, 0);
    expect([one.store.getState().trouble, audio.paused]).toEqual([null, false]);
  });

  test('music that is said to be missing is, until it has come; then it stands ready', async () => {
    const { one, song, repository } = screen(false);
    await one.play(song, 0);
    expect(one.store.getState()).toMatchObject({
      trouble: expect.stringMatching(/Add “x\.wav” again\.$/),
      missing: song.music.hash,
    });
    one.pause();
    one.came(OTHER);
    expect(one.store.getState().missing).toBe(song.music.hash);
    repository.music.mockImplementation(async () => ({ bytes: Uint8Array.of(1) }));
    one.came(song.music.hash);
    await ticks();
    expect(one.store.getState()).toMatchObject({ trouble: null, missing: null });
    expect(audio.src).toMatch(/^blob:/);
  });
});
