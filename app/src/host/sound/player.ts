// Plays a song's music, and keeps the conductor's idea of where it is true to what is heard.

import { createStore, type StoreApi } from 'zustand/vanilla';
import type { Song } from '@hovlix/core/song';
import { isGear, overActions, songAfter, songTimeAt, type LiveState } from '@hovlix/core/live';
import { seconds, type Id } from '@hovlix/core/units';
import type { Conducting } from '../conduct/conduct';
import { momentOf } from '../conduct/moment';
import type { Document } from '../document/document';
import type { Repository } from '../document/repository';
import { whilePlaying } from '../conduct/while-playing';
import { keptInWindow } from '../kept';
import { mediaKeys } from './media-keys';
import { musicAtHand } from './music-at-hand';
import { sounder } from './sounder';
import { followTracks } from './tracks';
import { uninterrupted } from './uninterrupted';

export type PlayerState = {
  readonly song: Id<'Song'> | null;
  /** Why there is no sound, in words; the light goes on without. */
  readonly trouble: string | null;
  /** The hash of music that was to sound and is not here. */
  readonly missing: string | null;
  /** Rehearsal: the music by this much of its tempo, its pitch kept; and a stretch of it that comes round again. */
  readonly rate: number;
  readonly loop: Loop | null;
  readonly volume: number;
  readonly muted: boolean;
};

/** `[from, to)` of a song, in seconds of its music. */
export type Loop = { readonly song: Id<'Song'>; readonly from: number; readonly to: number };

export type Player = {
  readonly store: StoreApi<PlayerState>;
  /** Plays from a moment of the music; without one, from where the song is. */
  readonly play: (song: Song, from?: number) => Promise<void>;
  readonly pause: () => void;
  /** @param fade seconds in which the light of the place that is left gives way. */
  readonly seek: (song: Song, to: number, fade?: number) => void;
  readonly slow: (rate: number) => void;
  /** Another song takes over from its start, unless one is on its way already. */
  readonly goOn: (next: Song) => void;
  /** How loud this screen plays, 0…1; muted, it is silent and goes on. */
  readonly loud: (volume: number, muted: boolean) => void;
  /** Null ends it, and the music goes on past it. */
  readonly loopOver: (loop: Loop | null) => void;
  /** Music is on this device now: what was said of its absence is over. */
  readonly came: (hash: string) => void;
};

/** Sound and light may drift apart by this much before the conductor is told. Far below what anyone sees. */
const DRIFT_SECONDS = 0.008;
const CHECK_MS = 250;
/** A place in the song that is so far from what is heard was chosen on another screen: the sound goes there. */
const SOUGHT_SECONDS = 0.5;
/** How often it is looked whether a loop is over. */
const LOOP_MS = 20;
const ANSWERED_WITHIN = 0.5;
/** How often it is looked whether the song has come round, or jumped: the sound goes there too. */
const TURN_MS = 10;
/** A place that is so far from where the song would be straight on is another place. */
const TURNED_SECONDS = 0.04;
/** A song that begins has enough to do for so long. */
const BUSY_SECONDS = 3;
/** So long after a turn the sound is still on its way. */
const SETTLED_SECONDS = 0.3;

const STOPPED =
  'This device stopped the music: a call, another app, or headphones pulled out. The light carries on, and the music returns by itself.';
const TOUCHES = ['pointerup', 'keydown'] as const;
const SOUNDED = keptInWindow('hovlix-sounded');

/** Only where the same page was loaded anew: a copy of the tab must not take the sound from the first. */
function soundedBefore(): string | undefined {
  const [how] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[];
  return how?.type === 'reload' ? SOUNDED.read() : undefined;
}

/** @param onItsWay music that is being fetched: it is waited for before it is said to be missing. */
export function player(
  repository: Repository,
  document: Document,
  conducting: Conducting,
  onItsWay: () => Promise<void>,
): Player {
  const store = createStore<PlayerState>(() => ({
    song: null,
    trouble: null,
    missing: null,
    rate: 1,
    loop: null,
    volume: 1,
    muted: false,
  }));
  const sound = sounder();
  const { audio, at: heardAt, goTo } = sound;
  let request = 0;
  /** This screen was the one that sounded: it takes up what a screen without music starts. */
  let sounded = false;
  /** What this page was called before it was loaded anew while it sounded: it takes its sound up again. */
  let wasCalled = soundedBefore();
  let asksForTouch = false;

  const tracks = followTracks(repository, document, conducting, store.getState);
  const playing = () => conducting.store.getState().live.song;
  const songOf = (live: LiveState['song']) => document.store.getState().show?.songs.find(({ id }) => id === live?.id);
  /** Where the music is that should sound here. */
  const place = () => {
    const live = playing();
    return live?.playing && live.sound === conducting.screen ? songTimeAt(live, conducting.now()) : undefined;
  };
  const { pause: stop } = uninterrupted(sound, place, (stopped) => {
    if (stopped) store.setState({ trouble: STOPPED });
    else if (store.getState().trouble === STOPPED) store.setState({ trouble: null });
  });
  const atHand = musicAtHand(repository, sound, stop);
  const fetched = async (music: NonNullable<Song['music']>) => {
    if (!(await repository.hasMusic(music.hash))) await onItsWay();
    return atHand.fetch(music);
  };
  /** Loads the song's music unless it is there already. False where there is none, or something else is asked for by then. */
  const load = async ({ title, music }: Song): Promise<boolean> => {
    const mine = request;
    if (!music) return false;
    if (atHand.isLoaded(music)) return true;
    const found = await fetched(music);
    if (mine !== request) return false;
    if (found) return atHand.load(music, found);
    const trouble = `The music of “${title}” is not in this browser. Add “${music.name}” again.`;
    store.setState({ trouble, missing: music.hash });
    return false;
  };
  /** It sounds at once when it is started from here. */
  const standBy = async (song: Song): Promise<void> => {
    const mine = request;
    tracks.bring(song);
    const { music } = song;
    if (!music || atHand.isLoaded(music)) return;
    const found = await fetched(music).catch(() => undefined);
    const live = playing();
    if (found && mine === request && live?.id === song.id && !live.playing && audio.paused)
      await atHand.load(music, found);
  };
  /** What stands ready is loaded where it is likely to be started: music takes room. */
  const getReady = (): void => {
    const { live } = conducting.store.getState();
    if (!live.song || live.song.playing) return;
    const opened = conducting.log().entries.at(-1)?.who === conducting.screen;
    const song = songOf(live.song);
    if (song && (opened || sounded || live.programs === conducting.screen)) void standBy(song);
  };

  /** The song whose next one is on its way. */
  let leaving: Id<'Song'> | undefined;
  /** The music that sounds here is over. A song that no screen sounds is ended by the conductor. */
  const over = (): void => {
    const live = playing();
    const moment = momentOf({ document, conducting });
    if (!moment || live?.sound !== conducting.screen) return;
    const { songs } = moment.show;
    const actions = overActions(moment);
    const goesOn = actions[0]?.type === 'play';
    for (const action of actions) {
      const next = action.type === 'play' ? songs.find(({ id }) => id === action.song) : undefined;
      if (!next || action.type !== 'play') conducting.act(action);
      else if (goesOn) self.goOn(next);
      else void self.play(next, action.from);
    }
  };
  let lookedAheadOf: Id<'Song'> | undefined;
  const lookAhead = (id: Id<'Song'>): void => {
    if (lookedAheadOf === id) return;
    lookedAheadOf = id;
    const moment = momentOf({ document, conducting });
    const next = moment && songAfter(moment)?.music;
    if (next && !atHand.isLoaded(next)) void fetched(next).catch(() => undefined);
  };
  /** Where the song was when it was looked at last, to see that it came round or jumped. */
  let seen: { readonly since: number; readonly time: number; readonly at: number } | undefined;
  let settled = 0;
  const follow = () => {
    const song = playing();
    if (!song?.playing || song.sound !== conducting.screen) return void (seen = undefined);
    const at = conducting.now();
    const time = songTimeAt(song, at);
    // What is corrected in between is far less than a turn.
    const straight = seen?.since === song.since ? seen.time + (at - seen.at) * song.rate : time;
    seen = { since: song.since, time, at };
    // Asked often, it is known well.
    heardAt();
    if (Math.abs(time - straight) < TURNED_SECONDS) return;
    settled = at + SETTLED_SECONDS;
    if (!audio.paused && Math.abs(heardAt() - time) > TURNED_SECONDS) goTo(time);
  };
  whilePlaying(conducting, follow, TURN_MS);
  const check = () => {
    const song = playing();
    const length = document.store.getState().show?.songs.find((one) => one.id === song?.id)?.duration;
    if (song?.playing && length !== undefined && songTimeAt(song, conducting.now()) > length + 0.3) return over();
    if (!song?.playing || song.sound !== conducting.screen || audio.paused || audio.seeking) return;
    follow();
    const at = conducting.now();
    const heard = heardAt();
    if (heard > BUSY_SECONDS) lookAhead(song.id);
    if (at < settled) return;
    if (Math.abs(songTimeAt(song, at) - heard) > DRIFT_SECONDS)
      conducting.act({ type: 'anchor', songTime: seconds(heard), at, rate: store.getState().rate });
  };
  whilePlaying(conducting, check, CHECK_MS);
  /** The song goes by the rate from here on: the screen that sounds follows, and so does all light. */
  const pace = () => {
    const live = playing();
    if (!live?.playing) return;
    const at = conducting.now();
    const heard = live.sound === conducting.screen && !audio.paused;
    const songTime = heard ? seconds(heardAt()) : songTimeAt(live, at);
    conducting.act({ type: 'anchor', songTime, at, rate: store.getState().rate });
  };
  /** When it was last asked to come round: the answer takes a moment. */
  let asked = -Infinity;
  const comeRound = () => {
    const { loop } = store.getState();
    const live = playing();
    const at = conducting.now();
    if (!loop || live?.id !== loop.song || !live.playing || at - asked < ANSWERED_WITHIN) return;
    if (songTimeAt(live, at) < loop.to) return;
    asked = at;
    if (live.sound === conducting.screen) goTo(loop.from);
    conducting.act({ type: 'seek', to: seconds(loop.from) });
  };
  /** A pedal of the computer itself started it, and this is the page one works with there: it sounds, as with a pedal of its own. */
  const startedByGear = () => {
    const last = conducting.log().entries.at(-1);
    const { live } = conducting.store.getState();
    return last !== undefined && isGear(last.who) && last.action.type === 'play' && live.programs === conducting.screen;
  };
  let looking: ReturnType<typeof setInterval> | undefined;
  audio.addEventListener('ended', () => playing()?.playing && over());
  // What another screen does with the song, the sound follows.
  conducting.store.subscribe(({ live }, before) => {
    if (live.song === before.live.song) return;
    const { song } = live;
    const mine = song?.playing && song.sound === conducting.screen;
    if (!mine && !audio.paused) stop();
    if (!song?.playing) return getReady();
    if (song.sound !== undefined && song.sound === wasCalled) return void takeUp(song.id);
    wasCalled = undefined;
    SOUNDED.keep(mine ? conducting.screen : undefined);
    if (song.sound !== undefined) {
      if (!mine) store.setState({ trouble: null });
      sounded = mine === true;
      // Also where another screen asked for it.
      if (mine && song.rate !== audio.playbackRate) audio.playbackRate = song.rate;
      if (mine) store.setState({ rate: song.rate });
      const at = songTimeAt(song, conducting.now());
      if (mine && !audio.paused && !audio.seeking && Math.abs(at - heardAt()) > SOUGHT_SECONDS) goTo(at);
    } else if (sounded || startedByGear()) void takeUp(song.id);
  });

  // Its show may come after the song.
  document.store.subscribe(({ show }, { show: old }) => {
    const song = playing();
    if (show === old) return;
    if (wasCalled !== undefined && song?.playing && song.sound === wasCalled) void takeUp(song.id);
    else if (!old) getReady();
  });

  /** The song was started where there is no music of it, or this page was loaded anew, and it has sounded before: it sounds again. */
  const takeUp = async (wanted: Id<'Song'>): Promise<void> => {
    const mine = ++request;
    const song = document.store.getState().show?.songs.find((one) => one.id === wanted);
    if (!song) return;
    if (!song.music && (song.tracks ?? []).length > 0) return takeUpBeside(song);
    if (!(await load(song)) || mine !== request) return;
    const live = playing();
    if (live?.id !== wanted || !live.playing || (live.sound !== undefined && live.sound !== wasCalled)) return;
    goTo(Math.max(0, songTimeAt(live, conducting.now())));
    await audio.play().catch(() => undefined);
    if (mine !== request) return stop();
    if (audio.paused) return live.sound === undefined ? undefined : askForTouch(wanted);
    store.setState({ song: wanted });
    const at = conducting.now();
    conducting.act({
      type: 'anchor',
      songTime: seconds(heardAt()),
      at,
      rate: store.getState().rate,
      sound: conducting.screen,
    });
  };

  /** What lies beside a song without music sounds from here again. */
  const takeUpBeside = ({ id }: Song): void => {
    const live = playing();
    if (live?.id !== id || !live.playing || live.sound !== wasCalled) return;
    const at = conducting.now();
    const songTime = songTimeAt(live, at);
    conducting.act({ type: 'anchor', songTime, at, rate: live.rate, sound: conducting.screen });
  };

  /** Browsers let a page that was loaded anew sound only once it is touched. */
  const askForTouch = (wanted: Id<'Song'>): void => {
    if (asksForTouch) return;
    asksForTouch = true;
    store.setState({
      trouble: 'The music stopped as the page was loaded anew. Touch it, or press a key, and it plays on.',
    });
    const touched = () => {
      for (const kind of TOUCHES) window.removeEventListener(kind, touched, true);
      store.setState({ trouble: null });
      asksForTouch = false;
      if (wasCalled !== undefined) void takeUp(wanted);
    };
    for (const kind of TOUCHES) window.addEventListener(kind, touched, true);
  };

  const self: Player = {
    store,
    async play(song, from) {
      const mine = ++request;
      const now = playing();
      const wanted = from ?? (now?.id === song.id ? songTimeAt(now, conducting.now()) : 0);
      const start = wanted >= song.duration - 0.05 ? 0 : Math.max(0, wanted);
      store.setState({ trouble: null, missing: null });
      const sounds = await load(song);
      if (mine !== request) return;
      store.setState({ song: song.id });
      if (sounds) {
        goTo(start);
        try {
          await audio.play();
        } catch (error) {
          const why = error instanceof Error ? error.message : String(error);
          store.setState({
            trouble: `This browser would not play “${song.title}” (${why}). The light goes on without it.`,
          });
        }
        if (mine !== request) return stop();
      }
      const { rate } = store.getState();
      const heard = sounds && !audio.paused;
      const at = seconds(heard ? heardAt() : start);
      // Without music of its own, what lies beside it sounds from here.
      const beside = !song.music && (song.tracks ?? []).length > 0;
      conducting.act({
        type: 'play',
        song: song.id,
        from: at,
        ...(heard || beside ? { sound: conducting.screen } : {}),
      });
      if (rate !== 1) conducting.act({ type: 'anchor', songTime: at, at: conducting.now(), rate });
    },
    pause() {
      request++;
      stop();
      conducting.act({ type: 'pause' });
    },
    seek(song, to, fade) {
      const live = playing();
      if (live?.id === song.id && live.playing) {
        if (live.sound === conducting.screen) goTo(to);
        conducting.act({ type: 'seek', to: seconds(to), ...(fade ? { fade: seconds(fade) } : {}) });
      } else conducting.act({ type: 'open-song', song: song.id, from: seconds(to) });
    },
    goOn(next) {
      const live = playing();
      if (!live || leaving === live.id) return;
      leaving = live.id;
      void self.play(next, 0).finally(() => (leaving = undefined));
    },
    loud(volume, muted) {
      audio.volume = volume;
      audio.muted = muted;
      store.setState({ volume, muted });
    },
    slow(rate) {
      if (store.getState().rate === rate) return;
      store.setState({ rate });
      pace();
    },
    loopOver(loop) {
      clearInterval(looking);
      looking = loop ? setInterval(comeRound, LOOP_MS) : undefined;
      store.setState({ loop });
    },
    came(hash) {
      if (store.getState().missing === hash) store.setState({ trouble: null, missing: null });
      getReady();
    },
  };
  const showOnDevice = mediaKeys({
    play() {
      const song = songOf(playing());
      if (song) void self.play(song);
    },
    pause: self.pause,
  });
  conducting.store.subscribe(({ live }, before) => {
    if (live.song?.id === before.live.song?.id && live.song?.playing === before.live.song?.playing) return;
    if (live.song?.sound === conducting.screen) showOnDevice(songOf(live.song), live.song.playing);
  });
  return self;
}
