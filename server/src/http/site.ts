// HTTP: the built app, and what it asks the server.

import { existsSync } from 'node:fs';
import { join } from 'node:path';
import express, { type Express } from 'express';
import helmet from 'helmet';
import type { NodeReport } from '../udp/node';
import type { OutputReport } from '../udp/output';
import { isLocal } from './origin';

export type Status = {
  readonly version: string;
  readonly screens: number;
  readonly output: OutputReport | null;
  /** What the DMX node stand-in says; null when none runs. */
  readonly node: NodeReport | null;
};

/** @param folder the built app. @param status asked on each request. */
export function site(folder: string, status: () => Status): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          // The music decoders are WebAssembly; nothing else may be compiled from data.
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          workerSrc: ["'self'", 'blob:'],
          // React Native Web and Tamagui write their style sheets at run time.
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          mediaSrc: ["'self'", 'blob:'],
          fontSrc: ["'self'"],
          connectSrc: ["'self'", 'blob:', 'data:'],
          objectSrc: ["'none'"],
          baseUri: ["'none'"],
          frameAncestors: ["'none'"],
          formAction: ["'none'"],
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use((request, response, next) => {
    if (isLocal(request.headers.host, request.headers.origin)) return next();
    response.status(403).type('text').send('Hovlix only answers on this computer.');
  });
  app.get('/api/status', (_request, response) => {
    response.set('Cache-Control', 'no-store').json(status());
  });
  app.use('/api', (_request, response) => {
    response.status(404).json({ error: 'There is nothing at this address.' });
  });
  // Names under these folders carry a hash of their contents.
  for (const hashed of ['_expo', 'assets'])
    app.use(`/${hashed}`, express.static(join(folder, hashed), { immutable: true, maxAge: '1y', fallthrough: true }));
  app.use(express.static(folder, { setHeaders: (response) => response.set('Cache-Control', 'no-cache') }));
  app.get('/{*path}', (request, response) => {
    const page = join(folder, 'index.html');
    if (/\.[a-z0-9]+$/i.test(request.path) || !existsSync(page))
      return void response.status(404).type('text').send('There is nothing at this address.');
    response.set('Cache-Control', 'no-cache').sendFile(page);
  });
  return app;
}
