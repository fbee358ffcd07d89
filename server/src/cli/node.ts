import { startNode } from '../udp/node';
import { numberOf, options } from './usage';

export const NODE_HELP = `Usage: hovlix node [--seconds N]

Runs the DMX node stand-in by itself: listens for sACN and Art-Net on 127.0.0.1 and prints, once a second,
one line of JSON with the universes, sources, rate, gaps and levels that arrive.`;

export async function nodeCommand(args: string[]): Promise<void> {
  const { values } = options({ args, options: { seconds: { type: 'string' } } });
  const length = numberOf(values.seconds, 'seconds', 1, 86400) ?? Infinity;
  const node = await startNode();
  for (let n = 0; n < length; n++) {
    await new Promise((resolve) => setTimeout(resolve, 1000));
    process.stdout.write(JSON.stringify(node.report()) + '\n');
  }
  node.close();
}
