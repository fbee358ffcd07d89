// Real packets: the stand-in's decks on one side, songs that go by them on the other.

import { createSocket } from 'node:dgram';
import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { session, type Session } from '@hovlix/core/conduct';
import { NO_PLAYER, type PlayerIn } from '@hovlix/core/connect';
import { PLAYER_SOUNDS, songTimeAt, type Action } from '@hovlix/core/live';
import { deckAt, writeDeckWord } from '@hovlix/core/player';
import { ORIGIN, type Change } from '@hovlix/core/show';
import { encodeOsc } from '@hovlix/core/wire';
import { testShow } from '../../../core/src/testing/show';
import { now } from '../clock';
import { connectionsStore } from '../connect/store';
import { startDecks } from '../stand-ins/decks';
import { until } from '../testing/wait';
import { followPlayer, type Player } from './player';

const open: { close: () => void }[] = [];
afterEach(() => open.splice(0).forEach((one) => one.close()));

/** A port nobody listens at. */
async function freePort(): Promise<number> {
  const socket = createSocket('udp4').bind(0, '127.0.0.1');
  await once(socket, 'listening');
  const { port } = socket.address() as AddressInfo;
  socket.close();
  return port;
}

type Night = {
  readonly shared: Session;
  readonly player: Player;
  readonly port: number;
  readonly said: (string | null)[];
  readonly set: (change: Partial<PlayerIn>) => void;
};

/** A conductor with the test show that listens to a player. */
async function night(): Promise<Night> {
  const nothing = () => undefined;
  const shared = session(
    now,
    { entry: nothing, show: nothing, changed: nothing, keep: nothing },
    { show: testShow(), chain: [ORIGIN] },
  );
  const connections = connectionsStore(undefined, nothing);
  const port = await freePort();
  const set = (change: Partial<PlayerIn>) =>
    void connections.edit({
      type: 'set-player',
      player: { ...(connections.connections().player ?? NO_PLAYER), ...change },
    });
  const said: (string | null)[] = [];
  const hub = {
    act: (who: string, action: Action) => void shared.act(who, action),
    edit: (change: Change) => void shared.edit(change),
  };
  const player = followPlayer({ connections, session: shared, hub, say: (why) => said.push(why), host: '127.0.0.1' });
  open.push(player);
  set({ on: true, port });
  return { shared, player, port, said, set };
}

const song = testShow().songs[0]!;
const track = { title: song.title, by: '', length: song.duration, bpm: 120, firstBeat: 0 };
const send = async (port: number, bytes: Uint8Array, from = '127.0.0.1') => {
  const socket = createSocket('udp4').bind(0, from);
  await once(socket, 'listening');
  await new Promise((resolve) => socket.send(bytes, port, '127.0.0.1', resolve));
  socket.close();
};

test('a deck of the stand-in leads the song within 20 ms, at +6 %, in a loop and over a jump; the track is remembered', async () => {
  const { shared, port, player } = await night();
  const decks = startDecks(port);
  open.push(decks);
  const live = () => shared.conductor.state();
  decks.take(1, { do: 'load', track });
  await until(() => live().song?.id === song.id);
  decks.take(1, { do: 'pitch', by: 0.06 });
  decks.take(1, { do: 'play' });
  await until(() => live().song?.playing);
  expect(live().song?.sound).toBe(PLAYER_SOUNDS);
  /** How far the song is from the deck, for so many seconds; where it has just come round is left out. */
  const offs = async (seconds: number) => {
    const all: number[] = [];
    for (const end = now() + seconds; now() < end; await new Promise((resolve) => setTimeout(resolve, 7))) {
      const deck = deckAt(decks.now()[0]!, now());
      if (deck.songTime - (deck.loop?.from ?? -1) > 0.06)
        all.push(Math.abs(songTimeAt(live().song!, now()) - deck.songTime));
    }
    return all.sort((a, b) => a - b);
  };
  const settled = async () => new Promise((resolve) => setTimeout(resolve, 80));
  const within = (all: readonly number[]) => all[Math.floor(all.length * 0.95)];
  await settled();
  expect(within(await offs(1.5))).toBeLessThan(0.02);
  decks.take(1, { do: 'loop', beats: 1 });
  await settled();
  expect(within(await offs(1.5))).toBeLessThan(0.02);
  decks.take(1, { do: 'loop', beats: null });
  decks.take(1, { do: 'go', to: 1 });
  await settled();
  expect(within(await offs(1))).toBeLessThan(0.02);
  expect(shared.order()?.show.player?.tracks.map((one) => [one.track.title, one.song])).toEqual([
    [song.title, song.id],
  ]);
  // A deck that was not heard for a moment is said to be silent until it is heard again.
  await until(() => player.report()?.decks[0]?.state === 'plays');
  expect(player.report()?.decks[0]).toMatchObject({ deck: 1, song: song.id, by: 'kept', state: 'plays', leads: true });
});

test('the decks of the stand-in say nothing while nobody uses them: a real player at the same port is heard alone', async () => {
  const { player, port, set } = await night();
  const decks = startDecks(port);
  open.push(decks);
  const level = () => player.report()?.decks.map(({ deck, level }) => [deck, level]);
  await send(port, writeDeckWord({ deck: 2, says: 'level', level: 0.5 }));
  await until(() => level()?.length === 1);
  // Twice as long as one that is used is silent.
  await new Promise((resolve) => setTimeout(resolve, 1100));
  expect(level()).toEqual([[2, 0.5]]);
  // Its page looks at it: it is switched on, and says that nothing is loaded.
  decks.now();
  await until(() => level()?.length === 2);
  set({ on: false });
});

test('two players with a deck 1 each are two decks, told by their addresses', async () => {
  const { player, port } = await night();
  const level = (of: number) => writeDeckWord({ deck: 1, says: 'level', level: of });
  await send(port, level(0.25));
  await send(port, level(0.5), '127.0.0.2');
  await until(() => player.report()?.decks.length === 2);
  expect(player.report()?.decks.map(({ from, deck, level }) => [from, deck, level])).toEqual([
    ['127.0.0.1', 1, 0.25],
    ['127.0.0.2', 1, 0.5],
  ]);
});

test('silence is said while the song goes on, and taken back when the deck is there again', async () => {
  const { shared, port, said } = await night();
  const at = (position: number) =>
    send(port, writeDeckWord({ deck: 2, says: 'at', position, rate: 1, bpm: 0, beat: 0 }));
  await send(
    port,
    writeDeckWord({ deck: 2, says: 'track', track: { title: song.title, by: '', length: song.duration } }),
  );
  await at(0.5);
  await until(() => said.at(-1)?.includes('Deck 2 of the DJ player stopped reporting'));
  expect(shared.conductor.state().song?.playing).toBe(true);
  await at(2);
  await until(() => said.at(-1) === null);
});

test('what is no word of a deck is counted and said; what is not for us is left alone; nothing is heard while it is off', async () => {
  const { player, port, set } = await night();
  await send(port, Buffer.from('hello'));
  await until(() => player.report()?.bad === 1);
  expect(player.report()?.lastBad).toContain('no multiple of four');
  await send(port, encodeOsc('/mixer/crossfader', 'f', [0.5]));
  await send(port, encodeOsc('/hovlix/deck/9/at', 'dffd', [0, 1, 0, 0]));
  await until(() => player.report()?.bad === 2);
  expect(player.report()?.lastBad).toContain('decks have numbers from 1 to 4');
  await send(port, new Uint8Array(5000));
  await until(() => player.report()?.lastBad?.includes('5000 bytes'));
  set({ on: false });
  expect(player.report()).toBeNull();
});

test('a port that another program has is said, and another one works', async () => {
  const { player, set } = await night();
  const other = createSocket('udp4').bind(0, '127.0.0.1');
  await once(other, 'listening');
  open.push(other);
  const taken = (other.address() as AddressInfo).port;
  set({ port: taken });
  await until(() => player.report()?.deaf?.includes('Another program listens'));
  const free = await freePort();
  set({ port: free });
  await until(() => player.report()?.deaf === null);
  await send(free, writeDeckWord({ deck: 1, says: 'track', track: { title: 'x', by: '', length: 1 } }));
  await until(() => player.report()?.decks.length === 1);
  // Nor does it need a touch once the other program has ended.
  set({ port: taken });
  await until(() => player.report()?.deaf?.includes('Another program listens'));
  open.pop()!.close();
  await until(() => player.report()?.deaf === null);
  await send(taken, writeDeckWord({ deck: 2, says: 'track', track: { title: 'y', by: '', length: 1 } }));
  await until(() => player.report()?.decks.some(({ deck }) => deck === 2));
});
