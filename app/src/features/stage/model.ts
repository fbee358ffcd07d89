import type { OutputReport } from '@hovlix/core/connect';
import type { LiveState } from '@hovlix/core/live';

export type Health = {
  readonly state: 'looking' | 'alone' | 'lost' | 'off' | 'starting' | 'failing' | 'none' | 'silent' | 'sending';
  readonly colour: '$faint' | '$warn' | '$fault' | '$live';
  readonly text: string;
};

/** The output's health in a few words. */
export function healthOf(
  conductor: 'looking' | 'browser' | 'server' | 'lost',
  sending: boolean,
  output: OutputReport | null,
): Health {
  if (conductor === 'looking') return { state: 'looking', colour: '$faint', text: 'looking for outputs' };
  if (conductor === 'browser') return { state: 'alone', colour: '$warn', text: 'no output: this browser only' };
  if (conductor === 'lost') return { state: 'lost', colour: '$fault', text: 'the server is gone' };
  if (!sending) return { state: 'off', colour: '$warn', text: 'output is off' };
  if (!output) return { state: 'starting', colour: '$faint', text: 'starting' };
  const failed = output.rows.filter((row) => row.state === 'failed').length;
  const live = output.rows.filter((row) => row.state === 'live').length;
  if (failed > 0) {
    const text = live > 0 ? `${failed} of ${failed + live} outputs fail` : 'output fails';
    return { state: 'failing', colour: '$fault', text };
  }
  if (output.rows.length === 0) return { state: 'none', colour: '$warn', text: 'no output yet' };
  if (live === 0) return { state: 'silent', colour: '$warn', text: 'outputs are silent' };
  return {
    state: 'sending',
    colour: '$live',
    text: `sending ${Math.round(output.framesPerSecond)}/s${live > 1 ? ` · ${live} outputs` : ''}`,
  };
}

/** What is held over the show, in a few words; null where nothing is. */
export function heldWords({ hands, held, test }: LiveState): string | null {
  const all = [
    hands.some((one) => one.on) ? 'by hand' : '',
    held.some(({ by }) => by !== undefined) ? 'lamp check' : '',
    held.some(({ by }) => by === undefined) ? 'channels' : '',
    test ? 'test' : '',
  ].filter(Boolean);
  return all.length > 0 ? all.join(' · ') : null;
}
