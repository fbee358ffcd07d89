// Who may come in. This computer's own door opens to its own screens; the phones' door to those who were given the code.

import { join } from 'node:path';
import express, { type Express, type Request, type RequestHandler } from 'express';
import { rateLimit } from 'express-rate-limit';
import { z } from 'zod';
import type { Right } from '@hovlix/core/live';
import { isFrom, isLocal } from './origin';
import type { Pairing } from './pairing';

/** A line that is used once a second, or once a minute, is not closed just as somebody asks again on it. */
export const KEEPS_LINES = { keepAliveTimeout: 75_000 } as const;

/** Lays what guards a door before everything else that the site does. */
export type Door = {
  readonly host: boolean;
  readonly guard: (app: Express) => void;
  readonly rightOf: (request: Request) => Right;
};

export const ownDoor: Door = {
  host: true,
  rightOf: () => 'operator',
  guard: (app) =>
    void app.use((request, response, next) => {
      if (isLocal(request.headers.host, request.headers.origin)) return next();
      response.status(403).type('text').send('Hovlix only answers on this computer.');
    }),
};

const Join = z.strictObject({ code: z.string().min(1).max(20), name: z.string().max(80) });
const Knock = z.strictObject({ name: z.string().max(80) });
/** A phone loads some sixty files to start with, and asks once a second from then on. */
const REQUESTS_A_MINUTE = 1200;

/** @param hosts the names and addresses under which phones may call, with the port. @param folder the joining page. */
export function phonesDoor(pairing: Pairing, hosts: () => readonly string[], folder: string): Door {
  const page: RequestHandler = (_request, response) =>
    void response.status(401).set('Cache-Control', 'no-store').sendFile(join(folder, 'join.html'));
  return {
    host: false,
    rightOf: (request) => pairing.deviceOf(request.headers.cookie)?.may ?? 'viewer',
    guard(app) {
      app.use(rateLimit({ windowMs: 60_000, limit: REQUESTS_A_MINUTE, legacyHeaders: false, standardHeaders: false }));
      app.use((request, response, next) => {
        if (isFrom(hosts(), request.headers.host, request.headers.origin)) return next();
        response.status(403).type('text').send('Hovlix does not answer under this name.');
      });
      app.use(
        '/join',
        express.static(folder, {
          index: false,
          redirect: false,
          setHeaders: (one) => one.set('Cache-Control', 'no-store'),
        }),
      );
      app.post('/join', express.json({ limit: '1kb' }), (request, response) => {
        const asked = Join.safeParse(request.body);
        if (!asked.success) return void response.status(400).json({ error: 'Type the six figures of the code.' });
        const answer = pairing.attempt(asked.data.code, asked.data.name, request.socket.remoteAddress ?? '');
        if (answer.ok) return void response.set('Set-Cookie', answer.cookie).json({ name: answer.device.name });
        const status = answer.why === 'wrong' ? 403 : answer.why === 'wait' ? 429 : 409;
        response.status(status).json({ error: refusal(answer.why, answer.waitSeconds), wait: answer.waitSeconds });
      });
      app.post('/join/knock', express.json({ limit: '1kb' }), (request, response) => {
        const asked = Knock.safeParse(request.body);
        if (!asked.success) return void response.status(400).json({ error: 'Say who is there: {"name": "…"}.' });
        response.json(pairing.knock(asked.data.name, request.socket.remoteAddress ?? ''));
      });
      app.get('/join/knock/:id', (request, response) => {
        const became = pairing.knocked(request.params.id);
        response.set('Cache-Control', 'no-store');
        if (became === 'waiting') return void response.status(202).json({});
        if (became === 'over')
          return void response.status(410).json({ error: 'Nobody let this device in. Ask again.' });
        response.set('Set-Cookie', became.cookie).json({});
      });
      app.use((request, response, next) => {
        const device = pairing.deviceOf(request.headers.cookie);
        // Who has joined has no business on the joining page.
        if (device) return request.path === '/join' ? response.redirect('/') : next();
        if (request.path.startsWith('/api'))
          return void response.status(401).json({ error: 'This device has not joined.' });
        page(request, response, next);
      });
    },
  };
}

function refusal(why: 'wrong' | 'wait' | 'full', wait: number): string {
  if (why === 'full') return 'There are too many devices. Send one away on the computer, in Connect.';
  const then = wait >= 60 ? `Wait ${Math.ceil(wait / 60)} minutes.` : wait > 0 ? `Wait ${wait} s.` : 'Try again.';
  return why === 'wrong' ? `That is not the code. ${then}` : `Too many wrong codes. ${then}`;
}
