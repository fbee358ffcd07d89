// Sends a large show to a port on loopback for a while, then says what that cost this process.

import { connectionsStore } from '../../server/src/connect/store';
import { networksOfThisComputer } from '../../server/src/connect/networks';
import { startOutput } from '../../server/src/output/output';
import { goFirst } from '../../server/src/output/precedence';
import { parseTarget } from '../../server/src/output/target';
import { AT_REST } from '@hovlix/core/live';
import { id, seconds } from '@hovlix/core/units';
import { now } from '../../server/src/clock';
import { bigShow } from './big-show';

const [port, universes, length] = process.argv.slice(2, 5).map(Number) as [number, number, number];
const drags = process.argv[5] === 'drag';
// As in the server.
goFirst();
const connections = connectionsStore(undefined, () => undefined);
const numbers = Array.from({ length: universes }, (_, i) => i + 1);
connections.reach(numbers, [parseTarget(`sacn:127.0.0.1:${port}`)!]);
const output = startOutput({
  cid: new Uint8Array(16).fill(3),
  connections: connections.connections(),
  networks: networksOfThisComputer(),
});
const show = bigShow(universes, universes * 30);
await output.tell({ type: 'show', show });
const at = now();
await output.tell({
  type: 'state',
  state: { ...AT_REST, song: { id: id<'Song'>('song'), playing: true, songTime: seconds(0), at, rate: 1, since: at } },
});
const memoryMb: number[] = [];
const measure = () => {
  globalThis.gc?.();
  memoryMb.push(process.memoryUsage().rss / 1e6);
};
// A fader that is dragged without end, as a screen tells it: sixty times a second.
let seq = 0;
const roles = show.roles.map(({ id: one }) => one);
const drag = setInterval(() => {
  if (!drags) return;
  seq++;
  const value = { role: roles[0]!, level: { type: 'hold' as const, value: (1 + Math.sin(seq / 20)) / 2 } };
  void output.tell({
    type: 'entry',
    entry: { seq, at: now(), who: 'drag', action: { type: 'hand', values: [value] } },
  });
}, 1000 / 60);
const begun = process.cpuUsage();
for (let tenth = 0; tenth < 10; tenth++) {
  await new Promise((resolve) => setTimeout(resolve, length * 100));
  measure();
}
const used = process.cpuUsage(begun);
clearInterval(drag);
await output.tell({ type: 'stop' });
process.send!({ cpuSeconds: (used.user + used.system) / 1e6, memoryMb });
process.disconnect();
