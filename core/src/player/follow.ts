// Songs go by a DJ player: by the deck that is heard, wherever it is, as fast as it turns.

import type { DeckTrack } from '../gig/known-track';
import {
  freeBeat,
  lookOffAction,
  lookOnAction,
  placeAt,
  PLAYER_SOUNDS,
  songTimeAt,
  waysEnded,
  type Action,
  type Moment,
} from '../live';
import type { Song } from '../song';
import { beats, seconds, type Id, type Seconds } from '../units';
import { deckClock, type DeckClock } from './deck-clock';
import { songOfTrack, type Matched } from './match';
import type { DeckWord } from './words';

/** Less than this, in seconds, nobody sees; and so little of a speed. */
const DRIFT_SECONDS = 0.004;
const DRIFT_RATE = 0.002;
/** A place so far off was jumped to. */
const SOUGHT_SECONDS = 0.25;
/** Another deck is heard when it is so much louder, and one is not heard below this. */
const LOUDER = 0.1;
const UNHEARD = 0.02;
/** A paused deck of which nothing was heard for so long is gone, in seconds. */
const GONE_SECONDS = 10;
/** Of two players that take turns, and of anything else that talks, no more are known at a time. */
const MOST_DECKS = 16;

export type DeckReport = {
  readonly deck: number;
  /** The player it is of. */
  readonly from: string;
  readonly track: DeckTrack | null;
  readonly song: Id<'Song'> | null;
  readonly by: Matched['by'] | null;
  readonly state: ReturnType<DeckClock['state']>;
  readonly position: number;
  readonly rate: number;
  readonly level: number;
  /** Songs go by this one now. */
  readonly leads: boolean;
};

/** What is to be done now: in the log, and a track to be kept with the song it was found to be. */
export type Followed = {
  readonly actions: readonly Action[];
  readonly found?: { readonly track: DeckTrack; readonly song: Id<'Song'> };
};

export type PlayerFollower = {
  /** @param from who said it, such as an address: deck 1 of one player is not deck 1 of another. */
  readonly take: (word: DeckWord, at: Seconds, from: string) => void;
  /** To be asked some fifty times a second. @param follows whether songs go by the player at all. */
  readonly look: (moment: Moment, follows: boolean) => Followed;
  readonly decks: (now: Seconds, show: Moment['show'] | undefined) => readonly DeckReport[];
  /** A deck that songs went by, and that has fallen silent. */
  readonly lost: (now: Seconds) => number | undefined;
};

type Deck = {
  readonly number: number;
  readonly from: string;
  clock: DeckClock;
  track: DeckTrack | null;
  level: number;
  heard: number;
  /** Loaded since it was looked at last. */
  fresh: boolean;
  matched?: { readonly show: Moment['show']; readonly track: DeckTrack; readonly found: Matched | undefined };
};

const NOTHING: Followed = { actions: [] };

export function playerFollower(): PlayerFollower {
  const decks = new Map<string, Deck>();
  let leads: Deck | undefined;
  /** The song that goes by it; and the look for a track that is none. */
  let led: Id<'Song'> | undefined;
  let stranger: { readonly track: DeckTrack; readonly look: Id<'Look'> | undefined } | undefined;

  const keyOf = ({ number, from }: Pick<Deck, 'number' | 'from'>) => `${number} ${from}`;
  const deckOf = (number: number, from: string): Deck | undefined => {
    const known = decks.get(keyOf({ number, from }));
    if (known || decks.size >= MOST_DECKS) return known;
    const deck: Deck = { number, from, clock: deckClock(), track: null, level: 1, heard: 0, fresh: false };
    decks.set(keyOf(deck), deck);
    return deck;
  };
  const matchOf = (deck: Deck, show: Moment['show']): Matched | undefined => {
    if (!deck.track) return undefined;
    if (deck.matched?.show !== show || deck.matched.track !== deck.track)
      deck.matched = { show, track: deck.track, found: songOfTrack(deck.track, show) };
    return deck.matched.found;
  };
  const turns = (deck: Deck, now: Seconds) => {
    const state = deck.clock.state(now);
    return deck.level > UNHEARD && deck.track !== null && (state === 'plays' || state === 'lost');
  };
  /** The one that is heard most; the one that leads stays while none is clearly louder. */
  const loudest = (now: Seconds): Deck | undefined => {
    let best = leads && turns(leads, now) ? leads : undefined;
    for (const deck of decks.values())
      if (deck !== best && turns(deck, now) && (!best || deck.level > best.level + LOUDER)) best = deck;
    return best;
  };
  const forget = (now: Seconds) => {
    for (const [key, { clock, heard }] of decks)
      if (now - heard > GONE_SECONDS && clock.state(now) !== 'lost') decks.delete(key);
  };

  const withoutStranger = (moment: Moment): Action[] => {
    const look = stranger?.look;
    stranger = undefined;
    return look && moment.live.standing.some((one) => one.look === look) ? [lookOffAction(moment, look)] : [];
  };
  const letGo = (moment: Moment): Action[] => {
    const { song } = moment.live;
    const goes = led !== undefined && song?.id === led && song.playing && song.sound === PLAYER_SOUNDS;
    led = undefined;
    return goes ? [{ type: 'pause' }] : [];
  };

  /** The song is where the deck is. */
  const lead = (moment: Moment, song: Song, { clock }: Deck): Action[] => {
    const { live, now } = moment;
    const playing = live.song?.playing ? live.song : undefined;
    // What sounds on a screen of ours is left alone.
    if (playing?.sound !== undefined && playing.sound !== PLAYER_SOUNDS) return [];
    led = song.id;
    const at = clock.positionAt(now);
    // The track may go on for a moment when the song is over.
    if (at >= song.duration) return [];
    const rate = Math.min(4, Math.max(0.1, clock.rate()));
    const anchor: Action = { type: 'anchor', songTime: at, at: now, rate };
    if (playing?.id !== song.id) {
      const { set, stops } = placeAt(moment);
      const stop = stops.find((one) => 'song' in one && one.at !== 'ready' && one.song.id === song.id);
      const place: Action[] =
        stop && live.set?.stop !== stop.id
          ? [{ type: 'set-place', set: set.id, entry: stop.entry.id, stop: stop.id }]
          : [];
      return [...place, { type: 'play', song: song.id, from: at, sound: PLAYER_SOUNDS }, anchor];
    }
    // Its loops are the player's.
    const own = waysEnded(playing);
    const off = Math.abs(songTimeAt(playing, now) - at);
    if (off > SOUGHT_SECONDS) return [...own, { type: 'seek', to: at }, anchor];
    if (off < DRIFT_SECONDS && Math.abs(rate / playing.rate - 1) < DRIFT_RATE) return [...own];
    return [...own, anchor];
  };

  /** A track that is none of the songs: its look, and the beat of its own. */
  const stand = (moment: Moment, track: DeckTrack, { clock }: Deck): Action[] => {
    const { show, live, now } = moment;
    const look = show.player?.unknown;
    const actions: Action[] = letGo(moment);
    if (stranger?.track !== track || stranger.look !== look) {
      const on = look && lookOnAction(moment, look);
      // The same look goes on over the next track.
      if (stranger?.look !== look) actions.push(...withoutStranger(moment), ...(on ? [on] : []));
      stranger = { track, look };
    }
    const bpm = clock.bpm() * clock.rate();
    if (bpm < 30 || bpm > 400) return actions;
    const beat = clock.beatAt(now);
    const off = (Math.abs(freeBeat(live, now) - beat) * 60) / bpm;
    if (off >= DRIFT_SECONDS || Math.abs(bpm / live.tempo.bpm - 1) >= DRIFT_RATE)
      actions.push({ type: 'tempo', bpm, beat: { at: now, beat: beats(beat) } });
    return actions;
  };

  /** Nothing plays: a song that was just loaded is got ready. */
  const ready = (moment: Moment): Followed => {
    const { live, show, now } = moment;
    for (const deck of decks.values()) {
      if (!deck.fresh) continue;
      deck.fresh = false;
      const found = matchOf(deck, show);
      if (!found?.song) continue;
      const opens = !live.song?.playing && live.song?.id !== found.song.id;
      return withFound(
        deck.track!,
        found,
        opens
          ? [{ type: 'open-song', song: found.song.id, from: seconds(Math.max(0, deck.clock.positionAt(now))) }]
          : [],
      );
    }
    return NOTHING;
  };

  return {
    take(word, at, from) {
      const deck = deckOf(word.deck, from);
      if (!deck) return;
      deck.heard = at;
      if (word.says === 'at') return deck.clock.take(word, at);
      if (word.says === 'level') return void (deck.level = word.level);
      const track = word.says === 'track' ? word.track : null;
      if (JSON.stringify(track) === JSON.stringify(deck.track)) return;
      deck.track = track;
      deck.fresh = track !== null;
      deck.clock = deckClock();
    },
    look(moment, follows) {
      const { now } = moment;
      forget(now);
      leads = follows ? loudest(now) : undefined;
      if (!follows && led === undefined && stranger === undefined) return NOTHING;
      if (!leads) {
        const actions = [...letGo(moment), ...withoutStranger(moment)];
        return actions.length > 0 || !follows ? { actions } : ready(moment);
      }
      leads.fresh = false;
      if (leads.clock.state(now) === 'lost') {
        // The song goes on by itself; whoever stops it has done with that deck.
        const { song } = moment.live;
        if (led !== undefined && !(song?.id === led && song.playing)) {
          decks.delete(keyOf(leads));
          leads = led = undefined;
        }
        return NOTHING;
      }
      const track = leads.track!;
      const found = matchOf(leads, moment.show);
      if (!found?.song) return { actions: stand(moment, track, leads) };
      return withFound(track, found, [...withoutStranger(moment), ...lead(moment, found.song, leads)]);
    },
    decks: (now, show) =>
      [...decks.values()]
        .sort((a, b) => a.from.localeCompare(b.from, 'en') || a.number - b.number)
        .map((deck) => {
          const found = show && matchOf(deck, show);
          return {
            deck: deck.number,
            from: deck.from,
            track: deck.track,
            song: found?.song?.id ?? null,
            by: found?.by ?? null,
            state: deck.clock.state(now),
            position: deck.clock.positionAt(now),
            rate: deck.clock.rate(),
            level: deck.level,
            leads: deck === leads,
          };
        }),
    lost: (now) => (leads?.clock.state(now) === 'lost' ? leads.number : undefined),
  };
}

const withFound = (track: DeckTrack, { song, by }: Matched, actions: readonly Action[]): Followed =>
  song && by !== 'kept' ? { actions, found: { track, song: song.id } } : { actions };
