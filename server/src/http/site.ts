// HTTP: the built app, and what it asks the server.

import { existsSync } from 'node:fs';
import { join } from 'node:path';
import express, { type ErrorRequestHandler, type Express } from 'express';
import helmet from 'helmet';
import expressStaticGzip from 'express-static-gzip';
import { z } from 'zod';
import type { Status } from '@hovlix/core/connect';
import { Right, RIGHTS } from '@hovlix/core/live';
import { DeckCommand } from '@hovlix/core/player';
import type { SoundStore } from '../sounds';
import { DECKS } from '../stand-ins/decks';
import type { StandIns } from '../stand-ins/child';
import type { Door } from './doors';

/** What the site asks of the rest of the server. */
export type Desk = {
  readonly status: (host: boolean) => Status;
  readonly sounds: SoundStore;
  /** What was pressed since the computer conducts, as a log. */
  readonly log: () => string;
  /** What the node stand-in heard in the last seconds. */
  readonly frames: StandIns['frames'];
  /** How the decks of the DJ player stand-in stand, after something was done on one. */
  readonly decks: StandIns['decks'];
  /** What the foot controller stand-in was sent last, after it was stepped on. */
  readonly foot: StandIns['foot'];
  readonly openToPhones: (open: boolean) => Promise<void>;
  readonly renewCode: () => void;
  readonly sendAway: (device: string) => boolean;
  /** What the next device that joins may do, and what one may that has. */
  readonly grantTo: (may: Right) => void;
  readonly setRight: (device: string, may: Right) => boolean;
  /** Lets in a device that knocks, or not. */
  readonly answer: (knock: string, letIn: boolean) => boolean;
};

/** @param folder the built app. */
export function site(folder: string, desk: Desk, door: Door): Express {
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
      // Meaningless over plain HTTP on a stage's own network; browsers only complain about them there.
      crossOriginOpenerPolicy: door.host,
      originAgentCluster: door.host,
    }),
  );
  door.guard(app);
  app.get('/api/status', (_request, response) => {
    response.set('Cache-Control', 'no-store').json(desk.status(door.host));
  });
  app.get('/api/log', (_request, response) => {
    response.set('Cache-Control', 'no-store').type('text').send(desk.log());
  });
  soundsOf(app, desk.sounds, door);
  if (door.host) hostOnly(app, desk);
  app.use('/api', (_request, response) => {
    response.status(404).json({ error: 'There is nothing at this address.' });
  });
  builtApp(app, folder);
  app.use(plainly);
  return app;
}

/** The built app, as its build compressed it. */
function builtApp(app: Express, folder: string): void {
  const serve = (path: string, cacheControl: string) =>
    expressStaticGzip(path, {
      enableBrotli: true,
      orderPreference: ['br'],
      index: false,
      serveStatic: {
        cacheControl: false,
        index: false,
        redirect: false,
        setHeaders: (response) => response.setHeader('Cache-Control', cacheControl),
      },
    });
  // Names under these folders carry a hash of their contents.
  for (const hashed of ['_expo', 'assets', 'workers'])
    app.use(`/${hashed}`, serve(join(folder, hashed), 'public, max-age=31536000, immutable'));
  const rest = serve(folder, 'no-cache');
  app.use(rest);
  app.get('/{*path}', (request, response, next) => {
    if (/\.[a-z0-9]+$/i.test(request.path) || !existsSync(join(folder, 'index.html')))
      return void response.status(404).type('text').send('There is nothing at this address.');
    request.url = '/index.html';
    rest(request, response, next);
  });
}

/** What cannot be read is said in a sentence; how the server is built is nobody's business. */
const plainly: ErrorRequestHandler = (error: { status?: number; statusCode?: number }, _request, response, next) => {
  if (response.headersSent) return next(error);
  const status = error.status ?? error.statusCode ?? 500;
  const sentence = status < 500 ? 'The request could not be read.' : 'Something went wrong in the server. Try again.';
  response.status(status).json({ error: sentence });
};

/** What followers hear in songs: a screen that may change the show may bring it, and any may have it. */
function soundsOf(app: Express, sounds: SoundStore, door: Door): void {
  const Hash = z.string().regex(/^[0-9a-f]{64}$/);
  app.get('/api/sounds/:hash', (request, response) => {
    const hash = Hash.safeParse(request.params.hash);
    const bytes = hash.success ? sounds.bytes(hash.data) : undefined;
    response.set('Cache-Control', 'no-store');
    // Not having heard of a song is no fault: nothing is what there is.
    if (!bytes) return void response.status(204).end();
    response.type('application/octet-stream').send(Buffer.from(bytes));
  });
  app.put(
    '/api/sounds/:hash',
    express.raw({ type: 'application/octet-stream', limit: '32mb' }),
    (request, response) => {
      const hash = Hash.safeParse(request.params.hash);
      const body: unknown = request.body;
      if (!hash.success || !Buffer.isBuffer(body))
        return void response.status(400).json({ error: 'Bring the envelopes of a song, under the hash of its music.' });
      if (door.rightOf(request) !== 'operator')
        return void response.status(403).json({ error: 'This device may not bring music.' });
      const why = sounds.put(hash.data, new Uint8Array(body));
      if (why) return void response.status(400).json({ error: why });
      response.status(204).end();
    },
  );
}

/** What only a screen on the computer itself may do: open the door, and say who stays. */
function hostOnly(app: Express, desk: Desk): void {
  const Heard = z.object({
    universe: z.coerce.number().int().min(1).max(63999),
    protocol: z.enum(['sacn', 'artnet']),
    since: z.coerce.number().default(0),
  });
  app.get('/api/node/frames', async (request, response) => {
    const asked = Heard.safeParse(request.query);
    if (!asked.success)
      return void response
        .status(400)
        .json({ error: 'Say which: ?universe=1&protocol=sacn, or artnet; with since=, from when, in seconds.' });
    const { universe, protocol, since } = asked.data;
    response.set('Cache-Control', 'no-store').json(await desk.frames(universe, protocol, since));
  });
  app.get('/api/decks', async (_request, response) => {
    response.set('Cache-Control', 'no-store').json(await desk.decks());
  });
  const OnDeck = z.object({ deck: z.number().int().min(1).max(DECKS), does: DeckCommand });
  app.post('/api/decks', express.json({ limit: '4kb' }), async (request, response) => {
    const asked = OnDeck.safeParse(request.body);
    if (asked.success) return void response.json(await desk.decks(asked.data.deck, asked.data.does));
    const { path, message } = asked.error.issues[0]!;
    response.status(400).json({ error: `The deck cannot do that: ${path.join('.') || 'the top'}, ${message}.` });
  });
  app.get('/api/foot', async (_request, response) => {
    response.set('Cache-Control', 'no-store').json(await desk.foot());
  });
  const Stepped = z.object({ bytes: z.array(z.number().int().min(0).max(255)).min(1).max(64) });
  app.post('/api/foot', express.json({ limit: '4kb' }), async (request, response) => {
    const asked = Stepped.safeParse(request.body);
    if (asked.success) return void response.json(await desk.foot(asked.data.bytes));
    response.status(400).json({ error: 'Say {"bytes": [144, 60, 127]}: one MIDI message.' });
  });
  const Open = z.strictObject({ open: z.boolean() });
  app.post('/api/phones', express.json({ limit: '1kb' }), async (request, response) => {
    const asked = Open.safeParse(request.body);
    if (!asked.success) return void response.status(400).json({ error: 'Say {"open": true} or {"open": false}.' });
    await desk.openToPhones(asked.data.open);
    response.json(desk.status(true).phones);
  });
  app.post('/api/phones/code', (_request, response) => {
    desk.renewCode();
    response.json(desk.status(true).phones);
  });
  const Grant = z.strictObject({ may: Right });
  app.post('/api/phones/grant', express.json({ limit: '1kb' }), (request, response) => {
    const asked = Grant.safeParse(request.body);
    if (!asked.success) return void response.status(400).json({ error: `Say {"may": "${RIGHTS.join('", or "')}"}.` });
    desk.grantTo(asked.data.may);
    response.json(desk.status(true).phones);
  });
  app.put('/api/phones/devices/:id', express.json({ limit: '1kb' }), (request, response) => {
    const asked = Grant.safeParse(request.body);
    if (!asked.success) return void response.status(400).json({ error: `Say {"may": "${RIGHTS.join('", or "')}"}.` });
    if (!desk.setRight(String(request.params['id']), asked.data.may))
      return void response.status(404).json({ error: 'This device is not in the list.' });
    response.json(desk.status(true).phones);
  });
  const Answer = z.strictObject({ letIn: z.boolean() });
  app.post('/api/phones/knocks/:id', express.json({ limit: '1kb' }), (request, response) => {
    const asked = Answer.safeParse(request.body);
    if (!asked.success) return void response.status(400).json({ error: 'Say {"letIn": true} or {"letIn": false}.' });
    if (!desk.answer(String(request.params['id']), asked.data.letIn))
      return void response.status(404).json({ error: 'Nobody asks to come in by that name any more.' });
    response.json(desk.status(true).phones);
  });
  app.delete('/api/phones/devices/:id', (request, response) => {
    if (!desk.sendAway(request.params.id))
      return void response.status(404).json({ error: 'This device is not in the list.' });
    response.json(desk.status(true).phones);
  });
}
