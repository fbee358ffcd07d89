// Screens and their conductor: each message is checked, done, and told to the others. The lines themselves belong to the
// host: sockets of a server, or tabs of one browser.

import type { ConnectCommand, Connections } from '../connect';
import {
  FromScreen,
  leftOfLate,
  maySay,
  overActions,
  PLAYER_SOUNDS,
  PROTOCOL,
  readMessage,
  RIGHT_WORDS,
  songTimeAt,
  type Action,
  type Right,
  type ToScreen,
} from '../live';
import { never } from '../problem';
import { headOf, since, type Change } from '../show';
import type { Seconds } from '../units';
import { allowances, weightOf, WHOLE_SHOW, type Allowance } from './allowances';
import { unfit } from './fits';
import { holds, holdersIn } from './holders';
import type { Session } from './session';

/** A screen that has said nothing for so long lets go of what it held, and after twice that counts as gone. Seconds. */
const SILENT = 1.5;
/** A message of so many characters and more takes its time over a bad Wi-Fi, and what is answered waits behind it. */
const LARGE = 50_000;
/** So many of them come through in a second at least. */
const SLOWEST = 100_000;
/** After a restart screens have so long to come back before what they held is let go. Seconds. */
const COMES_BACK = 6;
/** A screen that sounds ends its song itself; so long after the end it has not. Seconds. */
const ENDS_ITSELF = 2;
/** Every screen hears from its conductor this often, in seconds. */
const BEAT = 1;
/** So often `look` wants to be called, in ms. */
export const LOOK_MS = 500;

/** Who asks to come in: a screen of the conductor's own computer, or a device that has joined. */
export type Visitor = {
  readonly device: { readonly id: string; readonly name: string; readonly may: Right } | null;
};

/** The host's side of a line to one screen. */
export type Wire = {
  readonly send: (text: string) => void;
  readonly close: () => void;
  /** So many bytes wait to be sent. */
  readonly waiting: () => number;
  /** The host tells for sure when it ends: silence on it means nothing. */
  readonly sure?: boolean;
};

/** What a host tells of a line. */
export type Line = {
  readonly hear: (text: string) => void;
  /** A sign of life that is no message. */
  readonly alive: () => void;
  readonly closed: () => void;
};

/** What leads out of the conductor's computer; a browser alone has none. */
export type ConnectionsDesk = {
  readonly connections: () => Connections;
  readonly onChange: (follower: () => void) => void;
  readonly edit: (command: ConnectCommand) => string | undefined;
};

export type Hub = {
  readonly meet: (wire: Wire, visitor: Visitor) => Line;
  /** Looks after silent lines; to be called every `LOOK_MS`. */
  readonly look: () => void;
  readonly visitors: () => readonly Visitor[];
  readonly tellRight: (device: string, may: Right) => void;
  readonly showLevels: (universe: number, text: () => string, merged: boolean) => void;
  /** What the conductor's computer does by itself, in the order of all presses and edits; what does not fit is left out. */
  readonly act: (who: string, action: Action) => void;
  readonly edit: (change: Change) => void;
  /** What gear of the conductor's computer did: to all screens, or to one by its name. */
  readonly tell: (message: GearMessage, screen?: string) => void;
};

type GearMessage = Extract<ToScreen, { type: 'felt' | 'happened' | 'learned' }>;

type Known = Wire & {
  readonly visitor: Visitor;
  /** What the screen calls itself; empty before its first word. */
  screen: string;
  heardAt: number;
  /** Until when what it was told may be on its way: its silence says nothing. */
  arriving: number;
  closedAt: number | undefined;
  /** It let go of what it held, as nothing was heard of it. */
  released: boolean;
  watching: number | null;
  readonly allowance: Allowance;
};

/** A screen that has so much waiting gets no more levels: the newest will do when it has caught up. */
const LEVELS_WAITING = 64 * 1024;

type Start = {
  readonly now: () => Seconds;
  readonly session: Session;
  readonly connections?: ConnectionsDesk;
  /** Is told which universes screens want to see. */
  readonly watch?: (universes: readonly number[]) => void;
  /** How this computer is, as its own screens or devices may know it. */
  readonly status?: (own: boolean) => Readonly<Record<string, unknown>>;
  /** Is told which screen wants to learn from the gear of this computer; null where none does any more. */
  readonly learn?: (screen: string | null) => void;
};

export function conductorHub({
  now,
  session,
  connections,
  status,
  watch = () => undefined,
  learn = () => undefined,
}: Start): Hub {
  let learner: string | null = null;
  const learns = (screen: string | null) => learn((learner = screen));
  const lines = new Set<Known>();
  const allowed = allowances(now);
  let beaten = -Infinity;
  let lookedAt = now();
  /** The last look at the lines came late, and was none. */
  let spared = false;
  /** Screens that the state knows from before this conductor: who does not come back soon has gone. */
  let expected: { readonly screens: readonly string[]; readonly until: number } | undefined = {
    screens: holdersIn(session.conductor.state()),
    until: now() + COMES_BACK,
  };
  const open = () => [...lines].filter(({ closedAt }) => closedAt === undefined);
  const rightOf = ({ visitor }: Known): Right => visitor.device?.may ?? 'operator';
  const nameOf = ({ visitor }: Known) => visitor.device?.name ?? 'the computer';

  const send = (line: Known, text: string) => {
    if (text.length >= LARGE) line.arriving = Math.max(line.arriving, now()) + text.length / SLOWEST;
    line.send(text);
  };
  const tell = (line: Known, message: ToScreen) => send(line, JSON.stringify(message));
  const tellAll = (message: ToScreen, except?: Known) => {
    const text = JSON.stringify(message);
    for (const line of open()) if (line !== except && line.screen !== '') send(line, text);
  };
  const tellWatch = () => watch([...new Set(open().flatMap(({ watching }) => watching ?? []))]);
  const connectionsMessage = (): ToScreen | undefined =>
    connections && { type: 'connections', connections: { ...connections.connections() } };
  connections?.onChange(() => tellAll(connectionsMessage()!));
  const act = (who: string, action: Action, at?: Seconds) =>
    tellAll({ type: 'entries', entries: [session.act(who, action, at)] });
  /** Does what fits the show and the bounds of the state. @returns why not, in words. */
  const press = (who: string, action: Action, at = now()): string | undefined => {
    const why = unfit(session.shown(), session.conductor.state(), action, at);
    if (why === undefined) act(who, action, at);
    return why;
  };
  const showMessage = (by?: string): ToScreen | undefined => {
    const order = session.order();
    return (
      order && { type: 'show', show: { ...order.show }, chain: [...order.chain], ...(by === undefined ? {} : { by }) }
    );
  };
  const tellBeat = (to: readonly Known[]): void => {
    const beat = (own: boolean) =>
      JSON.stringify({ type: 'beat', screens: screens(), ...(status && { status: status(own) }) } satisfies ToScreen);
    let [forOwn, forDevices] = ['', ''];
    for (const line of to) line.send(line.visitor.device ? (forDevices ||= beat(false)) : (forOwn ||= beat(true)));
  };
  const screens = () => open().filter(({ screen }) => screen !== '').length;

  /** What a screen held ends with it; what it switched on stays. */
  const letGo = (line: Known): void => {
    if (line.released || line.screen === '') return;
    line.released = true;
    session.preview(line.screen, null);
    const before = session.conductor.state();
    const held = holds(before, line.screen);
    if (!held && before.programs !== line.screen) return;
    act('conductor', { type: 'gone', screen: line.screen });
    if (held) tellAll({ type: 'left', name: nameOf(line) });
  };
  const forget = ({ device }: Visitor): void => {
    if (device && ![...lines].some(({ visitor }) => visitor.device?.id === device.id)) allowed.forget(device.id);
  };
  const isBack = (line: Known) => open().some((one) => one !== line && one.screen === line.screen);

  /** Lets go of what was held by screens that a restart has lost. */
  const lookForExpected = (at: number): void => {
    if (!expected || at < expected.until) return;
    const { screens } = expected;
    expected = undefined;
    for (const screen of screens)
      if (!open().some((one) => one.screen === screen)) act('conductor', { type: 'gone', screen });
  };

  /** A song that is over, and that no screen sounds which would end it: it ends here, as it and its set say. */
  const lookForEnd = (at: Seconds): void => {
    const live = session.conductor.state();
    const show = session.shown();
    const song = live.song?.playing ? live.song : undefined;
    const length = show?.songs.find(({ id }) => id === song?.id)?.duration;
    if (!show || !song || length === undefined) return;
    const sounds = song.sound !== undefined && open().some(({ screen }) => screen === song.sound);
    if (songTimeAt(song, at) < length + (sounds ? ENDS_ITSELF : 0)) return;
    // What a DJ player led is over when its track is; what comes next is on its decks.
    const over = song.sound === PLAYER_SOUNDS ? [{ type: 'pause' } as const] : overActions({ show, live, now: at });
    for (const action of over) act('conductor', action);
  };

  const look = (): void => {
    const at = now();
    lookForExpected(at);
    lookForEnd(at);
    const isOver = session.conductor.state().held.some(({ until }) => until !== undefined && at >= until);
    if (isOver) act('conductor', { type: 'free-channels', universe: null, over: true });
    // Whoever was busy for long has not heard yet what came meanwhile: it looks once more before it believes in silence.
    spared = !spared && at - lookedAt > (2 * LOOK_MS) / 1000;
    lookedAt = at;
    for (const line of lines) {
      if (line.closedAt !== undefined) {
        if (at - line.closedAt < SILENT) continue;
        lines.delete(line);
        forget(line.visitor);
        if (!isBack(line)) letGo(line);
      } else if (line.sure || spared || at < line.arriving) continue;
      else if (at - line.heardAt > SILENT * 2) line.close();
      else if (at - line.heardAt > SILENT) letGo(line);
    }
    if (at - beaten < BEAT - 0.05) return;
    beaten = at;
    tellBeat(open().filter(({ screen }) => screen !== ''));
  };

  const notAllowed = (line: Known) =>
    `This device ${RIGHT_WORDS[rightOf(line)]}. Whoever is at the computer can change that in Connect.`;

  /** Whether a device says more than anybody can press; said once a second. */
  const tooMuch = (line: Known, weight: number): boolean => {
    const spent = line.allowance.spend(weight);
    if (spent === 'first') tell(line, refused('This device says too much in a second. What is too much is not done.'));
    return spent !== 'fine';
  };

  const hear = (line: Known, text: string): void => {
    line.heardAt = now();
    if (tooMuch(line, weightOf(text))) return;
    const read = readMessage(FromScreen, text);
    if (!read.ok) return tell(line, refused(read.why));
    const message = read.value;
    if (!maySay(rightOf(line), message)) {
      if (message.type === 'edit') tell(line, { type: 'refused-edit', id: message.change.id, why: notAllowed(line) });
      return tell(line, refused(notAllowed(line)));
    }
    if (line.screen === '' && message.type !== 'hello') return tell(line, refused('Say hello first.'));
    // It was only slow: what it holds from now on is held again.
    line.released = false;
    take(line, message);
  };

  function take(line: Known, message: ReturnType<typeof FromScreen.parse>): void {
    switch (message.type) {
      case 'hello':
        return welcome(line, message);
      case 'ping':
        return tell(line, { type: 'pong', sent: message.sent, now: now() });
      case 'act': {
        // How late it came and when are one moment: a tap counts exactly when it was made.
        const came = now();
        const late = message.at === undefined ? 0 : came - message.at;
        const action = leftOfLate(session.conductor.state(), message.action, late, came);
        if (!action) return tell(line, { type: 'late', action: message.action.type });
        const why = press(line.screen, action, came);
        return why === undefined ? undefined : tell(line, refused(why));
      }
      case 'edit': {
        const on = session.order()?.show.id === message.show;
        const outcome = on ? session.edit(message.change) : { why: 'That show is not on any more.' };
        if (outcome === 'again') return tell(line, { type: 'again', id: message.change.id });
        if (outcome !== 'done') return tell(line, { type: 'refused-edit', id: message.change.id, why: outcome.why });
        return tellAll({ type: 'changes', show: message.show, changes: [message.change] });
      }
      case 'preview':
        if (session.order()?.show.id !== message.show) return;
        session.preview(line.screen, message.ops);
        return tellAll({ type: 'preview', screen: line.screen, show: message.show, ops: message.ops }, line);
      case 'put-on': {
        if (message.ifNone && session.order()) return;
        if (tooMuch(line, WHOLE_SHOW)) return;
        const why = session.putOn(message.show, message.chain);
        if (why) return tell(line, refused(why));
        act('conductor', { type: 'show-on', show: session.order()!.show.id });
        // Who did it knows it.
        tell(line, showMessage()!);
        return tellAll(showMessage(nameOf(line))!, line);
      }
      case 'connections-edit': {
        const why = connections ? connections.edit(message.command) : 'A browser alone has no way out.';
        return why === undefined ? undefined : tell(line, refused(why));
      }
      case 'watch':
        line.watching = message.universe;
        return tellWatch();
      case 'learn':
        // Whoever asked last learns; another that ends its own takes nothing from them.
        if (message.on) learns(line.screen);
        else if (learner === line.screen) learns(null);
        return;
      default:
        return never(message);
    }
  }

  function welcome(line: Known, hello: { screen: string; show: { id: string; head: string } | null }): void {
    const namesake = open().find((one) => one !== line && one.screen === hello.screen);
    if (namesake && namesake.visitor.device?.id !== line.visitor.device?.id) {
      tell(line, refused('Another screen goes by this name. Reload the page.'));
      return line.close();
    }
    line.screen = hello.screen;
    // The same page, back on a new line before the old one was found dead.
    namesake?.close();
    const order = session.order();
    const state = session.conductor.state();
    tell(line, {
      type: 'welcome',
      protocol: PROTOCOL,
      now: now(),
      state,
      show: order ? { id: order.show.id, head: headOf(order.chain) } : null,
      may: rightOf(line),
      device: line.visitor.device?.name ?? null,
    });
    const out = connectionsMessage();
    if (out) tell(line, out);
    tellBeat([line]);
    const programs = open().some(({ screen }) => screen === state.programs);
    if (!line.visitor.device && !programs) act(line.screen, { type: 'program', screen: line.screen });
    if (!order) return;
    const missed = hello.show?.id === order.show.id ? since(order, hello.show.head) : undefined;
    if (missed) tell(line, { type: 'changes', show: order.show.id, changes: [...missed] });
    else tell(line, showMessage()!);
  }

  return {
    meet(wire, visitor) {
      const line: Known = {
        ...wire,
        visitor,
        screen: '',
        heardAt: now(),
        arriving: 0,
        closedAt: undefined,
        released: false,
        watching: null,
        allowance: allowed.of(visitor.device?.id),
      };
      lines.add(line);
      return {
        hear: (text) => hear(line, text),
        alive: () => void (line.heardAt = now()),
        closed() {
          line.closedAt ??= now();
          if (learner === line.screen && !isBack(line)) learns(null);
          if (line.watching !== null) tellWatch();
        },
      };
    },
    look,
    visitors: () => open().map(({ visitor }) => visitor),
    act: (who, action) => void press(who, action),
    edit(change) {
      const show = session.order()?.show.id;
      if (show !== undefined && session.edit(change) === 'done') tellAll({ type: 'changes', show, changes: [change] });
    },
    tell(message, screen) {
      if (screen === undefined) return tellAll(message);
      for (const line of open()) if (line.screen === screen) tell(line, message);
    },
    tellRight(device, may) {
      for (const line of open()) if (line.visitor.device?.id === device) tell(line, { type: 'may', may });
    },
    showLevels(universe, text, merged) {
      let said: string | undefined;
      for (const line of open()) {
        if (line.screen === '' || (!merged && line.watching !== universe) || line.waiting() > LEVELS_WAITING) continue;
        said ??= JSON.stringify({ type: 'levels', universe, levels: text(), merged } satisfies ToScreen);
        line.send(said);
      }
    },
  };
}

function refused(why: string): ToScreen {
  return { type: 'refused', why };
}
