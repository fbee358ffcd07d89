import { AT_REST } from '@hovlix/core/live';
import { seconds } from '@hovlix/core/units';
import { now } from '../clock';
import { cidOfThisMachine } from '../connect/cid';
import { homeFolder } from '../connect/home';
import { networksOfThisComputer } from '../connect/networks';
import { connectionsStore } from '../connect/store';
import { startOutput } from '../output/output';
import { goFirst } from '../output/precedence';
import { parseTarget, TARGETS } from '../output/target';
import { bundleFrom, rigIn, songIn } from './files';
import { numberOf, options, UsageError } from './usage';

export const PLAY_HELP = `Usage: hovlix play SHOW.hovlix --song NAME --to TARGET [--rig NAME] [--from S]

Sends a song's light in real time, without sound, and ends with the song. --to may be given more than once:
${TARGETS}`;

export async function playCommand(args: string[]): Promise<void> {
  const { values, positionals } = options({
    args,
    allowPositionals: true,
    options: {
      song: { type: 'string' },
      rig: { type: 'string' },
      from: { type: 'string' },
      to: { type: 'string', multiple: true },
    },
  });
  const [file] = positionals;
  if (positionals.length !== 1 || !file) throw new UsageError('play takes one SHOW.hovlix');
  const targets = (values.to ?? []).map((text) => {
    const target = parseTarget(text);
    if (!target) throw new UsageError(`--to takes ${TARGETS}, got: ${text}`);
    return target;
  });
  if (targets.length === 0) throw new UsageError('--to is needed: where the light goes');
  const { show, music } = bundleFrom(file);
  const song = songIn(show, values.song);
  const rig = rigIn(show, values.rig);
  const from = numberOf(values.from, 'from', 0, song.duration) ?? 0;
  const connections = connectionsStore(undefined, () => undefined);
  const fixtures = show.rigs.find((one) => one.id === rig)?.fixtures ?? [];
  connections.reach([...new Set(fixtures.map(({ universe }) => universe as number))], targets);
  const networks = networksOfThisComputer();
  goFirst();
  const output = startOutput({ cid: cidOfThisMachine(homeFolder()), connections: connections.connections(), networks });
  const sounds = [...music].flatMap(([hash, { envelopes }]) => (envelopes ? [{ hash, bytes: envelopes }] : []));
  await output.tell({ type: 'sounds', sounds });
  await output.tell({ type: 'show', show: { ...show, rig } });
  const at = now();
  const since = seconds(at - 60);
  const playing = { id: song.id, playing: true, songTime: seconds(from), at, rate: 1, since };
  await output.tell({ type: 'state', state: { ...AT_REST, song: playing } });
  await new Promise<void>((resolve) => {
    const timer = setTimeout(resolve, (song.duration - from) * 1000);
    for (const signal of ['SIGINT', 'SIGTERM'] as const)
      process.once(signal, () => {
        clearTimeout(timer);
        resolve();
      });
  });
  await output.tell({ type: 'stop' });
}
