// Opening the server to phones: a listener on each network of this computer, for as long as it is wanted.

import { createServer, type RequestListener, type Server } from 'node:http';
import { hostname } from 'node:os';
import type { NetworkFace } from '@hovlix/core/connect';
import { KEEPS_LINES } from './doors';

export type Phones = {
  readonly open: (wanted: boolean) => Promise<void>;
  /** Follows the networks: a listener goes with its network and comes back with it. */
  readonly see: (networks: readonly NetworkFace[]) => Promise<void>;
  readonly isOpen: () => boolean;
  /** Where phones can go, the likeliest first. */
  readonly addresses: () => readonly string[];
  /** Names and addresses with the port, as they stand in a request's Host. */
  readonly hosts: () => readonly string[];
  readonly problem: () => string | null;
  readonly close: () => void;
};

type Start = {
  readonly port: () => number;
  readonly serve: RequestListener;
  readonly attach: (server: Server) => void;
  /** Open these addresses instead of all networks of the computer. */
  readonly only?: readonly string[];
};

export function phones({ port, serve, attach, only }: Start): Phones {
  const listeners = new Map<string, Server>();
  let wanted = false;
  let networks: readonly NetworkFace[] = [];
  let problem: string | null = null;
  const name = hostname().toLowerCase();

  const places = () => only ?? [...new Set(networks.filter((face) => !face.internal).map((face) => face.address))];
  let settling: Promise<void> = Promise.resolve();
  /** One after the other: a look at the networks must not meet the switch half way. */
  const settle = (): Promise<void> => (settling = settling.then(settleNow));
  const settleNow = async (): Promise<void> => {
    const want = wanted ? places() : [];
    for (const [address, server] of listeners)
      if (!want.includes(address)) {
        listeners.delete(address);
        server.close();
        server.closeAllConnections();
      }
    problem =
      wanted && want.length === 0 ? 'This computer is not connected to a network that phones could reach it by.' : null;
    for (const address of want) {
      if (listeners.has(address)) continue;
      const server = createServer(KEEPS_LINES, serve);
      attach(server);
      const why = await listening(server, port(), address);
      if (why === undefined) listeners.set(address, server);
      else problem = `Phones cannot reach ${address}: ${why}.`;
    }
  };
  return {
    async open(next) {
      wanted = next;
      await settle();
    },
    async see(next) {
      networks = next;
      await settle();
    },
    isOpen: () => wanted,
    addresses: () => [...listeners.keys()].map((address) => `http://${address}:${port()}`),
    hosts: () =>
      [...listeners.keys(), name, `${name}.local`].flatMap((one) =>
        port() === 80 ? [one, `${one}:80`] : [`${one}:${port()}`],
      ),
    problem: () => problem,
    close() {
      wanted = false;
      void settle();
    },
  };
}

function listening(server: Server, port: number, address: string): Promise<string | undefined> {
  return new Promise((resolve) => {
    server.once('error', (error: NodeJS.ErrnoException) =>
      resolve(error.code === 'EADDRINUSE' ? `another program holds port ${port} there` : error.message),
    );
    server.listen(port, address, () => resolve(undefined));
  });
}
