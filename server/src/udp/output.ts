// The output: keeps a program and the live state, and sends light 44 times a second.
// It lives in a thread of its own, so that no web page, file or edit can hold up a frame.

import { compile, frameFor, render, type Program } from '@hovlix/core/engine';
import { AT_REST, reduced, type Entry, type LiveState } from '@hovlix/core/live';
import type { Show } from '@hovlix/core/show';
import { seconds } from '@hovlix/core/units';
import { now } from '../clock';
import { FRAMES_PER_SECOND, startPacer } from './pacer';
import { startSender, type SenderReport } from './sender';
import type { Target } from './target';

export type ToOutput =
  | { readonly type: 'show'; readonly show: Show }
  | { readonly type: 'state'; readonly state: LiveState }
  | { readonly type: 'entry'; readonly entry: Entry }
  | { readonly type: 'stop' };

export type OutputReport = {
  readonly sending: boolean;
  readonly framesPerSecond: number;
  readonly skipped: number;
  readonly universes: readonly number[];
  readonly senders: readonly SenderReport[];
};

export type Output = { readonly tell: (message: ToOutput) => Promise<void>; readonly report: () => OutputReport };

export function startOutput(targets: readonly Target[], cid: Uint8Array): Output {
  const senders = targets.map((target) => startSender(target, cid));
  let program: Program | undefined;
  let frame = new Uint8Array(0);
  let state = AT_REST;
  let sending = false;
  let counted = { at: now() as number, frames: 0, perSecond: 0 };

  const pacer = startPacer(now, FRAMES_PER_SECOND, (due) => {
    if (!program) return;
    if (sending !== state.sending) {
      sending = state.sending;
      if (!sending) for (const sender of senders) sender.fallSilent();
    }
    if (!sending) return;
    render(program, state, seconds(due), frame);
    for (let i = 0; i < senders.length; i++) senders[i]!.send(program.universes, frame);
    counted.frames++;
  });

  return {
    async tell(message) {
      if (message.type === 'show') {
        const next = compile(message.show);
        // A universe that is gone must be said goodbye to, or receivers hold its last light.
        if (program && !program.universes.every((one) => next.universes.includes(one)))
          for (const sender of senders) sender.fallSilent();
        program = next;
        frame = frameFor(program);
      } else if (message.type === 'state') state = message.state;
      else if (message.type === 'entry') state = reduced(state, message.entry);
      else {
        pacer.stop();
        for (const sender of senders) sender.fallSilent();
        await Promise.all(senders.map((sender) => sender.close()));
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
        universes: program?.universes ?? [],
        senders: senders.map((sender) => sender.report()),
      };
    },
  };
}
