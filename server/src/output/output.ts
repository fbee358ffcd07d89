// The output: keeps a program and the live state, and sends light 44 times a second.
// It lives in a thread of its own, so that no web page, file or edit can hold up a frame.

import { frameFor, programKeeper, ready, render, type Program } from '@hovlix/core/engine';
import {
  mergeInput,
  NO_CONNECTIONS,
  type InputRow,
  type Connections,
  type NetworkFace,
  type OutputReport,
  type Winner,
} from '@hovlix/core/connect';
import { AT_REST, reduced, type Action, type Entry, type LiveState } from '@hovlix/core/live';
import type { Ops, Show } from '@hovlix/core/show';
import { seconds } from '@hovlix/core/units';
import { SACN_DISCOVERY_EVERY } from '@hovlix/core/wire';
import { now } from '../clock';
import { readShared, type SharedLevels } from '../input/shared-levels';
import type { SoundBytes } from '../sounds';
import { incidentWatch } from './incidents';
import { FRAMES_PER_SECOND, startPacer } from './pacer';
import { rowBook, type Group } from './row-book';

export type ToOutput =
  | { readonly type: 'show'; readonly show: Show }
  /** What changed of it. */
  | { readonly type: 'edit'; readonly ops: Ops }
  /** What followers hear in songs. */
  | { readonly type: 'sounds'; readonly sounds: SoundBytes }
  | { readonly type: 'state'; readonly state: LiveState }
  | { readonly type: 'entry'; readonly entry: Entry }
  | { readonly type: 'connections'; readonly connections: Connections }
  | { readonly type: 'networks'; readonly networks: readonly NetworkFace[] }
  /** Universes whose levels screens want to see as they go out. */
  | { readonly type: 'watch'; readonly universes: readonly number[] }
  | { readonly type: 'stop' };

export type FromOutput =
  | { readonly type: 'report'; readonly report: OutputReport }
  | { readonly type: 'levels'; readonly universe: number; readonly levels: Uint8Array; readonly merged: boolean };

export type Output = { readonly tell: (message: ToOutput) => Promise<void>; readonly report: () => OutputReport };

type Start = {
  /** 16 bytes that name this Hovlix on sACN. */
  readonly cid: Uint8Array;
  readonly connections?: Connections;
  readonly networks: readonly NetworkFace[];
  /** Where the input thread leaves what it hears. */
  readonly heard?: SharedLevels;
  /** Whether this thread goes before all that is not in real time: see `goFirst`. */
  readonly realTime?: () => boolean | null;
  /** Takes levels of watched universes; the array is given away. */
  readonly show?: (universe: number, levels: Uint8Array, merged: boolean) => void;
};

/** What went wrong in a frame is told for so long, in seconds. */
const TOLD_FOR = 5;
/** What a hand does once and waits to see: its light comes before the next frame is due. */
const PRESSES: ReadonlySet<Action['type']> = new Set<Action['type']>([
  'look-on',
  'look-off',
  'all-off',
  'pad',
  'go',
  'step',
  'notes',
  'release',
  'blackout',
  'freeze',
  'flash-channels',
  'play',
  'seek',
]);
/** Watched universes are shown this often: every fourth frame. */
const SHOWN_EVERY = 4;

export function startOutput({
  cid,
  connections: first = NO_CONNECTIONS,
  networks,
  heard,
  show = () => undefined,
  realTime = () => null,
}: Start): Output {
  const incidents = incidentWatch(now, Date.now);
  const book = rowBook(cid, first, networks);
  let inputs: readonly InputRow[] = first.inputs.filter((row) => row.on);
  let program: Program | undefined;
  const keeper = programKeeper();
  let state = AT_REST;
  let watched: readonly number[] = [];
  let tick = 0;
  let discovered = -Infinity;
  let counted = { at: now() as number, frames: 0, perSecond: 0 };
  const theirs = new Uint8Array(512);
  const winners = new Map<number, Winner>();

  /** A frame on its way: what cannot be rendered to its end is not sent. */
  let next = new Uint8Array(0);
  let failed: string | null = null;
  let failedAt = -Infinity;

  /** The state from now on; what it asks for the first time is worked out here, not in the frame. */
  const become = (wanted: LiveState): void => {
    state = wanted;
    try {
      if (program) ready(program, state);
    } catch {
      // The frame will say so, and leave the last good light on.
    }
  };

  /** The program over all universes that have a lamp, an output or an input. */
  const widen = () => {
    const compiled = keeper.program();
    if (!compiled) return;
    const wanted = [...book.universes(), ...inputs.map((row) => row.universe as number)];
    const more = [...new Set(wanted)].filter((one) => !compiled.universes.includes(one));
    // At the end, so that the places of all channels stay as compiled.
    program = { ...compiled, universes: [...compiled.universes, ...more] };
    next = frameFor(program);
    book.lay(program.universes, next.length);
    become(state);
  };

  /** Renders one frame; where that cannot be done, the last good one stays. */
  const light = (group: Group, at: number): void => {
    try {
      if (state.sending) render(program!, state, seconds(at), next);
      else next.fill(0);
      group.limiter.hold(program!, next, at);
      group.frame.set(next);
      if (at >= failedAt + TOLD_FOR) failed = null;
    } catch (error) {
      failedAt = at;
      failed = error instanceof Error ? error.message : String(error);
    }
  };

  const frame = (due: number) => {
    incidents.frame();
    if (!program) return;
    tick++;
    for (const group of book.groups()) {
      light(group, due - group.delay);
      const merged = mergeAll(group);
      for (let i = 0; i < group.rows.length; i++) {
        const { sender, place } = group.rows[i]!;
        if (state.sending || merged[place]) sender.send(group.views[place]!, tick);
        else sender.fallSilent();
      }
      if (group.delay === 0 && tick % SHOWN_EVERY === 0) showWatched(group, merged);
    }
    book.synchronize(tick);
    if (due - discovered >= SACN_DISCOVERY_EVERY) {
      discovered = due;
      book.discover();
    }
    if (state.sending) counted.frames++;
  };
  const pacer = startPacer(now, FRAMES_PER_SECOND, frame, (enough) => keeper.work(enough) && widen());

  /** Lays what other programs send over a frame. @returns for each universe, whether somebody else sends there. */
  function mergeAll(group: Group): Uint8Array {
    group.merged.fill(0);
    if (!heard) return group.merged;
    for (let i = 0; i < inputs.length; i++) winners.set(inputs[i]!.universe, 'ours');
    for (let i = 0; i < inputs.length; i++) {
      const { id, universe, merge } = inputs[i]!;
      const place = program!.universes.indexOf(universe);
      if (place < 0 || !readShared(heard, id, theirs)) continue;
      // While our output is off, only a backup sends in our place.
      if (!state.sending && merge !== 'backup') continue;
      const winner = mergeInput(group.views[place]!, theirs, merge, state.sending);
      if (winner === 'ours') continue;
      group.merged[place] = 1;
      // Several inputs of one universe: where one has taken it over, nothing of ours is left for the next.
      if (winners.get(universe) !== 'theirs') winners.set(universe, winner);
    }
    return group.merged;
  }

  function showWatched(group: Group, merged: Uint8Array): void {
    for (let place = 0; place < program!.universes.length; place++) {
      const universe = program!.universes[place]!;
      if (merged[place] || watched.includes(universe)) show(universe, group.views[place]!.slice(), merged[place] === 1);
    }
  }

  return {
    async tell(message) {
      switch (message.type) {
        // What is new is made ready between two frames: the light goes on as it was until then.
        case 'show':
          return keeper.take(message.show);
        case 'edit':
          return keeper.edit(message.ops);
        case 'sounds':
          return keeper.hear(message.sounds);
        case 'state':
          return become(message.state);
        case 'entry':
          become(reduced(state, message.entry));
          if (PRESSES.has(message.entry.action.type)) pacer.hurry();
          return;
        case 'connections':
          inputs = message.connections.inputs.filter((row) => row.on);
          winners.clear();
          book.take(message.connections);
          return widen();
        case 'networks':
          book.see(message.networks);
          return widen();
        case 'watch':
          watched = message.universes;
          return;
        case 'stop':
          pacer.stop();
          return book.close();
      }
    },
    report() {
      const at = now();
      if (at - counted.at >= 0.9)
        counted = { at, frames: 0, perSecond: Math.round((counted.frames / (at - counted.at)) * 10) / 10 };
      return {
        sending: state.sending && program !== undefined,
        framesPerSecond: counted.perSecond,
        skipped: pacer.report().skipped,
        realTime: realTime(),
        universes: [...(program?.universes ?? [])],
        rows: book.reports(program !== undefined, state.sending),
        trouble: keeper.trouble() ?? failed,
        winners: [...winners].map(([universe, winner]) => ({ universe, winner })),
        incidents: [...incidents.list()],
      };
    },
  };
}
