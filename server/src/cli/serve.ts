import { fork, type ChildProcess } from 'node:child_process';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import pino from 'pino';
import { ARTNET_PORT, SACN_PORT } from '@hovlix/core/wire';
import { cidOfThisMachine } from '../cid';
import { site } from '../http/site';
import type { NodeReport } from '../udp/node';
import type { OutputReport, ToOutput } from '../udp/output';
import { parseTarget, type Target } from '../udp/target';
import { startHub } from '../ws/hub';
import { session } from '../ws/session';
import { showFrom } from './files';
import { numberOf, options, UsageError } from './usage';

export const SERVE_HELP = `Usage: hovlix serve [--port N] [--demo] [--to TARGET]...

Serves Hovlix on this computer, conducts, and sends DMX. Prints one address.
  --port N     where to listen on 127.0.0.1 (4747)
  --demo       opens “Friday at the Boathouse” and starts the DMX node stand-in
  --to TARGET  sacn:multicast (usual), sacn:ADDRESS, artnet:ADDRESS; with --demo the stand-in (sacn:127.0.0.1)`;

const VERSION = '0.1.0';

/** Where the built command lies: server/dist. */
const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

export async function serveCommand(args: string[]): Promise<void> {
  const { values } = options({
    args,
    options: {
      port: { type: 'string' },
      demo: { type: 'boolean', default: false },
      to: { type: 'string', multiple: true },
    },
  });
  const port = numberOf(values.port, 'port', 0, 65535) ?? 4747;
  const targets = (values.to ?? [values.demo ? 'sacn:127.0.0.1' : 'sacn:multicast']).map(targetOf);
  const log = pino({ level: process.env['HOVLIX_LOG'] ?? 'warn' });

  const output = new Worker(new URL('./output.mjs', import.meta.url), {
    workerData: { targets, cid: cidOfThisMachine() },
  });
  let outputReport: OutputReport | null = null;
  output.on('message', (report: OutputReport) => (outputReport = report));
  output.on('error', (error) => log.error({ err: error }, 'the output stopped'));
  const tell = (message: ToOutput) => output.postMessage(message);
  const shared = session({
    show: (show) => tell({ type: 'show', show }),
    entry: (entry) => tell({ type: 'entry', entry }),
  });
  if (values.demo) shared.open(showFrom(here('../../demo/boathouse.hovlix')), 0);
  const node = values.demo
    ? nodeProcess(targets, (why) => log.warn(`The DMX node stand-in cannot listen: ${why}`))
    : undefined;

  const app = site(here('../../app/dist'), () => ({
    version: VERSION,
    screens: hub.screens(),
    output: outputReport,
    node: node?.report() ?? null,
  }));
  const server = createServer(app);
  const hub = startHub(server, shared);
  await new Promise<void>((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      node?.stop();
      tell({ type: 'stop' });
      const taken = error.code === 'EADDRINUSE';
      reject(new Error(taken ? `Port ${port} is taken. Is Hovlix running already? Else: --port N` : error.message));
    });
    server.listen(port, '127.0.0.1', resolve);
  });
  process.stdout.write(`Hovlix: http://localhost:${(server.address() as AddressInfo).port}\n`);

  await new Promise<void>((resolve) => {
    for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => resolve());
  });
  hub.close();
  server.close();
  server.closeAllConnections();
  // The goodbye packets go out before the thread ends.
  const ended = new Promise((resolve) => output.once('exit', resolve));
  tell({ type: 'stop' });
  await Promise.race([ended, new Promise((resolve) => setTimeout(resolve, 1000))]);
  node?.stop();
}

function targetOf(text: string): Target {
  const target = parseTarget(text);
  if (!target) throw new UsageError(`--to takes sacn:multicast, sacn:ADDRESS or artnet:ADDRESS, got: ${text}`);
  return target;
}

/** The stand-in listens where the first loopback target of each protocol sends. */
function nodeProcess(targets: readonly Target[], failed: (why: string) => void) {
  const portOf = (protocol: Target['protocol'], usual: number) =>
    targets.find((target) => target.protocol === protocol && target.host === '127.0.0.1')?.port ?? usual;
  const ports = [portOf('sacn', SACN_PORT), portOf('artnet', ARTNET_PORT)].map(String);
  const child: ChildProcess = fork(here('./node.mjs'), ports, { stdio: 'ignore' });
  let last: NodeReport | null = null;
  child.on('message', (message: { type: string; report?: NodeReport; why?: string }) => {
    if (message.report) last = message.report;
    if (message.why) failed(message.why);
  });
  child.on('error', (error) => failed(error.message));
  child.on('exit', () => (last = null));
  return { report: () => last, stop: () => void child.kill() };
}
