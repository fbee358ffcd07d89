// OSC on a server of a bench's own.

import { NO_OSC } from '@hovlix/core/connect';
import { PROTOCOL } from '@hovlix/core/live';
import { WebSocket } from 'ws';

/** As its card in Connect does it. */
export async function listenToOsc(server: number, port: number): Promise<void> {
  const socket = new WebSocket(`ws://127.0.0.1:${server}/conductor`);
  await new Promise((resolve, reject) => socket.once('open', resolve).once('error', reject));
  socket.send(JSON.stringify({ type: 'hello', protocol: PROTOCOL, screen: 'bench', show: null }));
  const command = { type: 'set-osc', osc: { ...NO_OSC, on: true, port } };
  socket.send(JSON.stringify({ type: 'connections-edit', command }));
  const isOn = async () => {
    const status = (await (await fetch(`http://127.0.0.1:${server}/api/status`)).json()) as { osc: unknown };
    return status.osc !== null;
  };
  while (!(await isOn())) await new Promise((resolve) => setTimeout(resolve, 100));
  socket.close();
}
