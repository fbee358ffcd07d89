// Where no server conducts, this browser does: one of its tabs keeps the order, the others follow it live.

import { conductorHub, LOOK_MS, session, type Hub, type Line, type Running } from '@hovlix/core/conduct';
import type { LiveState } from '@hovlix/core/live';
import type { Copy } from '@hovlix/core/show';
import { seconds, type Seconds } from '@hovlix/core/units';
import { freshId } from '../fresh-id';
import type { OpenLine } from './lines';
import { localSeconds } from './local-clock';

const LOCK = 'hovlix-conductor';
const CHANNEL = 'hovlix-conductor';
/** A tab of this browser may do everything. */
const OWN = { device: null };

/** What to go on from: the show, and what was pressed until a moment of the conductor's clock. */
type Begin = { readonly copy: Copy | undefined; readonly live?: LiveState; readonly from?: Seconds };

const runningOf = (copy: Copy | undefined): Running | undefined =>
  copy && { show: copy.show, chain: [...copy.chain, ...copy.pending.map(({ id }) => id)] };

function hubFor({ copy, live, from = seconds(0) }: Begin): { readonly hub: Hub; readonly stop: () => void } {
  const begun = localSeconds();
  const now = () => seconds(from + localSeconds() - begun);
  const nothing = () => undefined;
  const following = { entry: nothing, show: nothing, changed: nothing, keep: nothing };
  const hub = conductorHub({ now, session: session(now, following, runningOf(copy), live) });
  const timer = setInterval(hub.look, LOOK_MS);
  return { hub, stop: () => clearInterval(timer) };
}

/** A line within this page. Messages are told one after the other, never from within a call. */
function within(hub: Hub, events: Parameters<OpenLine>[0]): { readonly line: Line; readonly end: () => void } {
  let over = false;
  const later = (work: () => void) => queueMicrotask(() => over || work());
  const line = hub.meet(
    {
      send: (text) => later(() => events.heard(text)),
      close: () => later(() => events.closed(1000)),
      waiting: () => 0,
      sure: true,
    },
    OWN,
  );
  later(events.opened);
  return {
    line,
    end() {
      over = true;
      line.closed();
    },
  };
}

/** To a conductor of this screen's own: nobody else sees what it does. */
export function privateLine(begin: () => Begin): OpenLine {
  return (events) => {
    let own: ReturnType<typeof within> | undefined;
    let hub: ReturnType<typeof hubFor> | undefined;
    return {
      start() {
        hub = hubFor(begin());
        own = within(hub.hub, events);
      },
      send: (text) => own?.line.hear(text),
      close() {
        own?.end();
        hub?.stop();
      },
      // It lives in this page: it cannot be dead while somebody asks.
      fail: () => undefined,
    };
  };
}

type Posted =
  | { readonly from: string; readonly text: string }
  | { readonly from: string; readonly gone: true }
  | { readonly to: string; readonly text: string }
  | { readonly conductor: 'here' };

/**
 * To the one tab of this browser that conducts: this one, where no other does. When that tab is closed, the next takes
 * its place with the show and the state it has.
 */
export function browserLine(begin: () => Begin): OpenLine {
  const tab = freshId();
  const channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel(CHANNEL);
  const post = (message: Posted) => channel?.postMessage(message);
  let hub: Hub | undefined;
  let told: () => void = () => undefined;
  const others = new Map<string, Line>();

  const conduct = () => {
    hub = hubFor(begin()).hub;
    post({ conductor: 'here' });
    told();
  };
  const serve = ({
    from,
    ...message
  }: { readonly from: string } & ({ readonly text: string } | { readonly gone: true })) => {
    if (!hub) return;
    if ('gone' in message) {
      others.get(from)?.closed();
      return void others.delete(from);
    }
    let line = others.get(from);
    if (!line) {
      line = hub.meet(
        { send: (text) => post({ to: from, text }), close: () => others.delete(from), waiting: () => 0, sure: true },
        OWN,
      );
      others.set(from, line);
    }
    line.hear(message.text);
  };
  // Also while this tab itself looks into another show: the others go on.
  channel?.addEventListener('message', ({ data }: MessageEvent<Posted>) => 'from' in data && serve(data));
  if (navigator.locks) void navigator.locks.request(LOCK, () => new Promise<never>(conduct));
  else conduct();

  return (events) => {
    let own: ReturnType<typeof within> | undefined;
    const listen = ({ data }: MessageEvent<Posted>) => {
      if ('from' in data) return undefined;
      if ('to' in data) return data.to === tab ? events.heard(data.text) : undefined;
      // Another tab has taken over: this one says hello to it.
      if (!hub) events.opened();
    };
    const join = () => (own = within(hub!, events));
    const leave = () => post({ from: tab, gone: true });
    return {
      start() {
        channel?.addEventListener('message', listen);
        window.addEventListener('pagehide', leave);
        told = join;
        if (hub) join();
        else events.opened();
      },
      send(text) {
        if (own) own.line.hear(text);
        else post({ from: tab, text });
      },
      close() {
        channel?.removeEventListener('message', listen);
        window.removeEventListener('pagehide', leave);
        told = () => undefined;
        if (own) own.end();
        else leave();
      },
      fail: () => undefined,
    };
  };
}
