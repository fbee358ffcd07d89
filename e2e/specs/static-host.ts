// Any static host: files, the page for everything else, nothing that answers.

import { readFile } from 'node:fs/promises';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { extname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const dist = fileURLToPath(new URL('../../app/dist', import.meta.url));
const TYPES: Record<string, string> = {
  '.html': 'text/html',
  '.js': 'text/javascript',
  '.css': 'text/css',
  '.woff2': 'font/woff2',
  '.png': 'image/png',
};

export async function startStatic(): Promise<{ readonly base: string; readonly stop: () => Promise<void> }> {
  const host = createServer(async (request, response) => {
    const path = new URL(request.url ?? '/', 'http://x').pathname;
    const file = join(dist, extname(path) ? path : 'index.html');
    const bytes = await readFile(file).catch(() => undefined);
    response.writeHead(bytes ? 200 : 404, { 'content-type': TYPES[extname(file)] ?? 'application/octet-stream' });
    response.end(bytes);
  });
  await new Promise<void>((resolve) => host.listen(0, '127.0.0.1', resolve));
  return {
    base: `http://localhost:${(host.address() as AddressInfo).port}`,
    stop: () =>
      new Promise((resolve) => {
        host.close(() => resolve());
        // A browser keeps lines open that it has asked nothing on yet.
        host.closeAllConnections();
      }),
  };
}
