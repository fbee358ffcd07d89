import { isIPv4 } from 'node:net';
import { startNode } from '../stand-ins/node';
import { startSerial } from '../stand-ins/serial';
import { numberOf, options, UsageError } from './usage';

export const NODE_HELP = `Usage: hovlix node [--at ADDRESS] [--join UNIVERSE]... [--seconds N]

Runs the DMX node stand-in by itself: listens for sACN and Art-Net and prints, once a second, one line of JSON with
the universes, sources, rate, gaps and levels that arrive.
  --at ADDRESS     which of this computer's addresses to listen at (127.0.0.1)
  --join UNIVERSE  hears this sACN universe by multicast as well`;

export async function nodeCommand(args: string[]): Promise<void> {
  const { values } = options({
    args,
    options: { seconds: { type: 'string' }, at: { type: 'string' }, join: { type: 'string', multiple: true } },
  });
  const host = values.at ?? '127.0.0.1';
  if (!isIPv4(host)) throw new UsageError(`--at takes an address like 10.0.0.20, got: ${host}`);
  const join = (values.join ?? []).map((text) => numberOf(text, 'join', 1, 63999)!);
  const length = numberOf(values.seconds, 'seconds', 1, 86400) ?? Infinity;
  const node = await startNode({ host, join });
  await printing(length, () => node.report());
  node.close();
}

export const SERIAL_HELP = `Usage: hovlix serial [--plain] [--at PATH] [--seconds N]

Runs the serial stand-in by itself: a pseudo-terminal to open like a USB cable. Prints its path, then once a second one
line of JSON with what arrives.
  --plain    a plain adapter (250,000 baud) instead of a framed interface
  --at PATH  a name that stays the same at every start`;

export async function serialCommand(args: string[]): Promise<void> {
  const { values } = options({
    args,
    options: { plain: { type: 'boolean', default: false }, at: { type: 'string' }, seconds: { type: 'string' } },
  });
  const length = numberOf(values.seconds, 'seconds', 1, 86400) ?? Infinity;
  const cable = await startSerial(values.plain ? 'plain' : 'framed', values.at);
  process.once('SIGINT', () => process.exit());
  process.once('SIGTERM', () => process.exit());
  process.once('exit', () => cable.close());
  process.stdout.write(`${cable.path}\n`);
  await printing(length, () => cable.report());
}

async function printing(length: number, report: () => unknown): Promise<void> {
  // Whoever read along has gone.
  process.stdout.once('error', () => process.exit());
  for (let n = 0; n < length; n++) {
    await new Promise((resolve) => setTimeout(resolve, 1000));
    process.stdout.write(JSON.stringify(report()) + '\n');
  }
}
