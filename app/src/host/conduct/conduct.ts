// The line to the conductor: the server where there is one, else this browser. Screens act through it and follow it.

import { createStore, type StoreApi } from 'zustand/vanilla';
import {
  AT_REST,
  keptLog,
  PROTOCOL,
  readMessage,
  reduced,
  ToScreen,
  type Action,
  type Entry,
  type FromScreen,
  type LiveState,
  type Log,
  type Right,
  type Told,
} from '@hovlix/core/live';
import type { Chain, Copy, Show } from '@hovlix/core/show';
import type { Seconds } from '@hovlix/core/units';
import type { Document } from '../document/document';
import type { Light } from '../light/light';
import { conductorsClock } from './conductors-clock';
import { keptLine, LOOK_MS } from './kept-line';
import { serverLine, type OpenLine } from './lines';
import { localSeconds } from './local-clock';
import { hadServer, isServed, rememberServer } from './served';

export type LinkState = {
  readonly live: LiveState;
  /** Who conducts: this browser alone, the server, or a server that has gone and is being looked for. */
  readonly conductor: 'looking' | 'browser' | 'server' | 'lost';
  /** The light is on this screen alone: a show is looked into that is not on. */
  readonly here: boolean;
  /** What this screen may do. */
  readonly may: Right;
  /** The name this device joined by; null on the conductor's own computer. */
  readonly device: string | null;
  /** Screens that are there, this one counted. */
  readonly screens: number;
  /** The conductor has no show. */
  readonly waiting: boolean;
  /** The last thing the conductor refused, in its words. */
  readonly refused: string | null;
};

/** Levels of one universe as they leave the computer. */
export type Levels = { readonly universe: number; readonly levels: Uint8Array };

/** A conductor of this browser's own. A page of a server fetches it once it has nothing else to do: it may be needed when the server has gone. */
const own = () => import('./browser-conductor');
const SPARE_MS = 5000;

/** What is said in passing: a press that was not sent or came late, a screen that went, a show that somebody put on. */
export type Word =
  | { readonly type: 'not-sent'; readonly action: string }
  | { readonly type: 'late'; readonly action: string }
  | { readonly type: 'left'; readonly name: string }
  | { readonly type: 'put-on'; readonly by: string; readonly show: string }
  | { readonly type: 'parted'; readonly copy: Copy }
  | { readonly type: 'refused-edit'; readonly why: string }
  | { readonly type: 'refused'; readonly why: string };

/** What the computer that conducts tells of what is plugged into it. */
export type GearWord = Extract<Told, { type: 'felt' | 'happened' | 'learned' }>;

export type Conducting = {
  readonly store: StoreApi<LinkState>;
  readonly act: (action: Action) => void;
  /** What is on, with what was pressed here and is not answered yet: two quick presses are two. */
  readonly foreseen: () => LiveState;
  /** The conductor's clock. */
  readonly now: () => Seconds;
  /** Looks for a server where this page came from, while `mine`, what was open here last, is still being read. */
  readonly start: (mine: Promise<Copy | undefined>) => Promise<void>;
  /** What is known once the conductor has answered first, or cannot be reached. */
  readonly joined: () => Promise<LinkState>;
  readonly say: (message: FromScreen) => void;
  /** Puts a show on for every screen. With `ifNone`, only where the conductor has none. */
  readonly putOn: (copy: Copy, options?: { readonly ifNone?: boolean }) => void;
  /** Opens a show with light on this screen alone; undefined goes back to what is on. */
  readonly lookInto: (copy: Copy | undefined) => Promise<void>;
  /** What was pressed since this screen came, or the last of it. */
  readonly log: () => Log;
  /** This screen's own name among the screens. */
  readonly screen: string;
  /** The connections of the conductor's computer, each time they change. */
  readonly onConnections: (take: (connections: unknown) => void) => void;
  readonly onWord: (take: (word: Word) => void) => void;
  /** How the conductor's computer is, once a second while it is reached. */
  readonly onStatus: (take: (status: unknown) => void) => () => void;
  readonly onGear: (take: (word: GearWord) => void) => void;
  /** Shows a universe as it goes out while subscribed; one at a time on each screen. */
  readonly watch: (universe: number, take: (levels: Levels) => void) => () => void;
};

/** How often a page that opened without its server looks whether it is there again. */
const RETURN_MS = 3000;
const PING_EVERY_MS = 10_000;
/** A press that was not answered for so long will not be, in seconds. */
const ANSWERED_WITHIN = 1;

export function conducting(document: Document, light: Light, screen: string): Conducting {
  const store = createStore<LinkState>(() => ({
    live: AT_REST,
    conductor: 'looking',
    here: false,
    may: 'operator',
    device: null,
    screens: 1,
    waiting: false,
    refused: null,
  }));
  /** How the conductor of all screens is reached; none until it is known. */
  let common: OpenLine | undefined;
  let kind: 'browser' | 'server' = 'browser';
  let takeConnections: (connections: unknown) => void = () => undefined;
  let takeWord: (word: Word) => void = () => undefined;
  const followers = new Set<(status: unknown) => void>();
  let takeGear: (word: GearWord) => void = () => undefined;
  let watched: { readonly universe: number; readonly take: (levels: Levels) => void } | undefined;
  /** Said before the welcome came: sent right after it. */
  let toPutOn: { readonly copy: Copy; readonly ifNone: boolean } | undefined;
  let begun: Copy | undefined;
  /** While what was open here last is being read. */
  let reading: Promise<unknown> | undefined;
  const kept = keptLog(AT_REST);
  let returning: ReturnType<typeof setInterval> | undefined;

  /** What was pressed here and is not answered yet, in order. */
  let ahead: { readonly action: Action; readonly until: number }[] = [];
  const answered = (type: string) => {
    const first = ahead.findIndex(({ action }) => action.type === type);
    if (first >= 0) ahead.splice(first, 1);
  };
  const foreseen = (): LiveState => {
    ahead = ahead.filter(({ until }) => until > localSeconds());
    const { live } = store.getState();
    return ahead.reduce((on, { action }) => reduced(on, { seq: on.seq + 1, at: now(), who: screen, action }), live);
  };

  const line = keptLine({
    opened: () => opened(),
    heard: (text) => heard(text),
    // The light worker goes on from the same state and the same clock, so the picture goes on.
    lost: () => store.getState().conductor !== 'looking' && store.setState({ conductor: 'lost' }),
    // What is open here is a part of the greeting.
    ready: () => reading,
  });
  const say = (message: FromScreen) => line.send(JSON.stringify(message));
  const ping = (sent: number) => say({ type: 'ping', sent });
  const clock = conductorsClock(ping);
  const { now } = clock;
  const followed = () => ['server', 'browser'].includes(store.getState().conductor);
  const take = (entry: Entry) => {
    kept.add(entry);
    if (entry.who === screen) answered(entry.action.type);
    store.setState(({ live }) => ({ live: reduced(live, entry) }));
    light.tell({ type: 'entry', entry });
  };

  document.onChange((change, show) =>
    light.tell('ops' in change ? { type: 'edit', ops: change.ops } : { type: 'show', show }),
  );
  document.follow({
    edit: (show, change) => say({ type: 'edit', show, change }),
    preview: (show, ops) => say({ type: 'preview', show, ops: ops && [...ops] }),
  });

  const opened = () => {
    const copy = document.store.getState().copy ?? begun;
    document.lineBroke();
    clock.begin();
    say({
      type: 'hello',
      protocol: PROTOCOL,
      screen,
      show: copy ? { id: copy.show.id, head: copy.chain.at(-1)! } : null,
    });
    ping(localSeconds());
  };

  const welcomed = (message: Extract<Told, { type: 'welcome' }>) => {
    if (message.show === null) line.settled();
    clock.greeted(message.now);
    light.tell({ type: 'clock', offset: clock.offset() });
    light.tell({ type: 'state', state: message.state });
    kept.begin(message.state);
    ahead = [];
    const here = store.getState().here;
    store.setState({
      conductor: here ? 'browser' : kind,
      live: message.state,
      may: message.may,
      device: message.device,
      waiting: message.show === null,
      refused: null,
    });
    if (watched) say({ type: 'watch', universe: watched.universe });
    const own = begun;
    begun = undefined;
    if (toPutOn) sendShow(toPutOn.copy, toPutOn.ifNone);
    else if (message.show === null && own && message.may === 'operator') sendShow(own, true);
    // The same show was open here: it is joined with what the conductor has.
    else if (own && message.show?.id === own.show.id) void document.open(own, { keep: false });
    toPutOn = undefined;
  };

  const sendShow = (copy: Copy, ifNone: boolean) =>
    say({
      type: 'put-on',
      show: { ...copy.show },
      chain: [...copy.chain, ...copy.pending.map(({ id }) => id)].slice(-1000),
      ...(ifNone ? { ifNone } : {}),
    });

  /** The whole show that is on, to a screen that joins or as somebody put it on. */
  const takeShow = ({ show, chain, by }: { show: unknown; chain: Chain; by?: string | undefined }) => {
    const before = document.store.getState().copy?.show.id;
    const parted = document.rejoin(show as Show, chain, { aside: store.getState().here });
    document.resend();
    store.setState({ waiting: false });
    if (parted) takeWord({ type: 'parted', copy: parted });
    const { id, name } = show as Show;
    if (by !== undefined && before !== undefined && before !== id) takeWord({ type: 'put-on', by, show: name });
  };

  const heard = (text: string) => {
    const read = readMessage(ToScreen, text);
    if (!read.ok) return store.setState({ refused: read.why });
    const message = read.value;
    switch (message.type) {
      case 'welcome':
        return welcomed(message);
      case 'pong':
        clock.answered(message);
        return light.tell({ type: 'clock', offset: clock.offset() });
      case 'beat':
        if (store.getState().screens !== message.screens) store.setState({ screens: message.screens });
        if (message.status) for (const take of followers) take(message.status);
        return;
      case 'may':
        return store.setState({ may: message.may });
      case 'entries':
        return message.entries.forEach(take);
      case 'show':
        line.settled();
        return takeShow(message);
      case 'changes':
        line.settled();
        document.take(message.show, message.changes);
        return document.resendOnce();
      case 'again':
        return document.forget(message.id);
      case 'refused-edit':
        document.refuse(message.id);
        return takeWord({ type: 'refused-edit', why: message.why });
      case 'preview':
        return document.preview(message.screen, message.show, message.ops);
      case 'connections':
        return takeConnections(message.connections);
      case 'levels': {
        const levels = levelsFromHex(message.levels);
        if (watched?.universe === message.universe) watched.take({ universe: message.universe, levels });
        if (message.merged) light.tell({ type: 'theirs', universe: message.universe, levels });
        return;
      }
      case 'late':
        answered(message.action);
        return takeWord({ type: 'late', action: message.action });
      case 'felt':
      case 'happened':
      case 'learned':
        return takeGear(message);
      case 'left':
        return takeWord({ type: 'left', name: message.name });
      case 'refused':
        // Which of them it was is not told.
        ahead = [];
        store.setState({ refused: message.why });
        return takeWord({ type: 'refused', why: message.why });
    }
  };

  /** What another tab would go on with, where it takes over from the one that conducted. */
  const goOn = () => ({
    copy: document.store.getState().copy ?? begun,
    ...(followed() ? { live: store.getState().live, from: now() } : {}),
  });

  /** The server of this page is there again: what was done meanwhile is joined with what it has. Not while a song plays. */
  const comeBack = async () => {
    const busy = () => kind === 'server' || store.getState().here || (store.getState().live.song?.playing ?? false);
    // It may take a while to answer, and by then a song may play, or an earlier question have been answered.
    if (busy() || (await isServed()) !== 'yes' || busy()) return;
    clearInterval(returning);
    kind = 'server';
    common = serverLine;
    begun = document.store.getState().copy ?? begun;
    line.leave();
    line.connect(common);
  };

  const watchLine = () => {
    if (line.look(store.getState().conductor !== 'looking')) clock.askIfUnsure();
  };

  return {
    store,
    now,
    foreseen,
    act(action) {
      if (followed()) {
        while (ahead[0] && ahead[0].until <= localSeconds()) ahead.shift();
        ahead.push({ action, until: localSeconds() + ANSWERED_WITHIN });
        // No older than it is for sure: where clocks are in doubt, it is taken for younger. A tap is as old as it most likely
        // is, once that is known well: else how long each was on its way would be in the tempo.
        const doubt = action.type === 'tap' && clock.isSure() ? 0 : clock.doubt();
        say({ type: 'act', action, ...(doubt < Infinity ? { at: now() + doubt } : {}) });
      } else if (store.getState().conductor === 'lost') takeWord({ type: 'not-sent', action: action.type });
    },
    async start(mine) {
      reading = mine.then((copy) => {
        begun = copy;
        reading = undefined;
      });
      const asked = localSeconds();
      let served = await isServed();
      // Once more, unless nobody answered for long.
      if (served === 'unknown' && localSeconds() - asked < 1) served = await isServed();
      kind = served === 'yes' ? 'server' : 'browser';
      if (kind === 'server') rememberServer();
      else await reading;
      common = kind === 'server' ? serverLine : (await own()).browserLine(goOn);
      line.connect(common);
      setTimeout(() => void own().catch(() => undefined), SPARE_MS);
      if (kind === 'browser' && (hadServer() || served === 'unknown'))
        returning = setInterval(() => void comeBack(), RETURN_MS);
      setInterval(() => ping(localSeconds()), PING_EVERY_MS);
      setInterval(watchLine, LOOK_MS);
      window.document.addEventListener('visibilitychange', watchLine);
      window.addEventListener('online', watchLine);
    },
    joined: () =>
      new Promise((resolve) => {
        const known = (state: LinkState) => state.conductor !== 'looking';
        if (known(store.getState())) return resolve(store.getState());
        const stop = store.subscribe((state) => {
          if (!known(state)) return;
          stop();
          resolve(state);
        });
      }),
    say,
    putOn(copy, { ifNone = false } = {}) {
      if (!store.getState().here) return sendShow(copy, ifNone);
      toPutOn = { copy, ifNone };
      store.setState({ here: false });
      line.leave();
      if (common) line.connect(common);
    },
    async lookInto(copy) {
      if (!copy && !store.getState().here) return;
      line.leave();
      store.setState({ here: copy !== undefined, live: AT_REST });
      light.tell({ type: 'state', state: AT_REST });
      if (copy) {
        await document.open(copy, { aside: true });
        const { privateLine } = await own();
        line.connect(privateLine(() => ({ copy: document.store.getState().copy ?? copy })));
      } else if (common) line.connect(common);
    },
    log: kept.log,
    screen,
    onConnections: (take) => void (takeConnections = take),
    onWord: (take) => void (takeWord = take),
    onStatus(take) {
      followers.add(take);
      return () => followers.delete(take);
    },
    onGear: (take) => void (takeGear = take),
    watch(universe, take) {
      const mine = { universe, take };
      watched = mine;
      say({ type: 'watch', universe });
      return () => {
        if (watched !== mine) return;
        watched = undefined;
        say({ type: 'watch', universe: null });
      };
    },
  };
}

function levelsFromHex(text: string): Uint8Array {
  const levels = new Uint8Array(512);
  for (let i = 0; i < 512; i++) levels[i] = Number.parseInt(text.slice(i * 2, i * 2 + 2), 16) || 0;
  return levels;
}
