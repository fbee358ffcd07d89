// Which phones and tablets may come in: one types the code that the host's screen shows, once, and is remembered.

import { randomBytes, randomInt, timingSafeEqual } from 'node:crypto';
import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { parse, serialize } from 'cookie';
import { sign, unsign } from 'cookie-signature';
import { z } from 'zod';

const Kept = z.strictObject({
  /** Signs the cookies. Whoever reads it could let himself in, so the file is its owner's only. */
  secret: z.string().min(32),
  devices: z.array(
    z.strictObject({
      id: z.string().min(16),
      name: z.string().min(1).max(40),
      addedAt: z.number(),
      lastSeenAt: z.number().nullable(),
    }),
  ),
});
type Kept = z.infer<typeof Kept>;
export type PairedDevice = Kept['devices'][number];

export type Attempt =
  | { readonly ok: true; readonly device: PairedDevice; readonly cookie: string }
  | { readonly ok: false; readonly why: 'wrong' | 'wait' | 'full'; readonly waitSeconds: number };

export type Pairing = {
  /** The code of the moment, made anew when it was used, guessed at too often, or has grown old. */
  readonly code: () => { readonly code: string; readonly until: number };
  readonly renew: () => void;
  readonly attempt: (code: string, name: string, from: string) => Attempt;
  /** The device a request's cookie stands for; undefined for anybody else. */
  readonly deviceOf: (cookieHeader: string | undefined) => PairedDevice | undefined;
  readonly devices: () => readonly PairedDevice[];
  /** Sends a device away for good. */
  readonly revoke: (id: string) => boolean;
};

const COOKIE = 'hovlix_device';
const CODE_FOR_MS = 10 * 60_000;
const MOST_DEVICES = 50;
/** Wrong codes from one address: the first few are typing slips, then each costs twice the wait of the one before. */
const FREE_SLIPS = 3;
const LOCKED_AFTER = 10;
const LOCKED_FOR_MS = 15 * 60_000;
/** Wrong codes from everywhere together before the code itself is given up. */
const CODE_GUESSES = 30;
const MOST_ADDRESSES = 1000;

/** @param file where devices are kept; without, only in memory. @param now ms since 1970. */
export function pairing(file: string | undefined, now: () => number): Pairing {
  const kept = read(file);
  let current = fresh();
  let guesses = 0;
  const slips = new Map<string, { wrong: number; waitUntil: number }>();

  function fresh(): { code: string; until: number } {
    return { code: String(randomInt(0, 1_000_000)).padStart(6, '0'), until: now() + CODE_FOR_MS };
  }
  const renew = () => {
    current = fresh();
    guesses = 0;
  };
  const code = () => {
    if (now() >= current.until) renew();
    return current;
  };
  const save = () => {
    if (!file) return;
    try {
      mkdirSync(dirname(file), { recursive: true });
      writeFileSync(`${file}.new`, JSON.stringify(kept, null, 2), { mode: 0o600 });
      renameSync(`${file}.new`, file);
    } catch {
      // A home that cannot be written to: devices are remembered until Hovlix stops.
    }
  };
  const slip = (from: string): void => {
    const before = slips.get(from)?.wrong ?? 0;
    const wrong = before + 1;
    const wait = wrong >= LOCKED_AFTER ? LOCKED_FOR_MS : wrong < FREE_SLIPS ? 0 : 1000 * 2 ** (wrong - FREE_SLIPS);
    if (slips.size >= MOST_ADDRESSES) slips.delete(slips.keys().next().value!);
    slips.set(from, { wrong, waitUntil: now() + wait });
    if (++guesses >= CODE_GUESSES) renew();
  };

  return {
    code,
    renew,
    attempt(typed, name, from) {
      const { waitUntil = 0 } = slips.get(from) ?? {};
      if (now() < waitUntil) return { ok: false, why: 'wait', waitSeconds: Math.ceil((waitUntil - now()) / 1000) };
      if (!sameText(typed.replace(/\D/g, ''), code().code)) {
        slip(from);
        const wait = Math.ceil(Math.max(0, (slips.get(from)?.waitUntil ?? 0) - now()) / 1000);
        return { ok: false, why: 'wrong', waitSeconds: wait };
      }
      if (kept.devices.length >= MOST_DEVICES) return { ok: false, why: 'full', waitSeconds: 0 };
      slips.delete(from);
      renew();
      const device: PairedDevice = {
        id: randomBytes(16).toString('hex'),
        name: nameFor(name, kept.devices.length + 1),
        addedAt: now(),
        lastSeenAt: now(),
      };
      kept.devices.push(device);
      save();
      const cookie = serialize(COOKIE, sign(device.id, kept.secret), {
        httpOnly: true,
        sameSite: 'lax',
        path: '/',
        maxAge: 400 * 24 * 3600,
      });
      return { ok: true, device, cookie };
    },
    deviceOf(header) {
      const value = header === undefined ? undefined : parse(header)[COOKIE];
      const id = value === undefined ? false : unsign(value, kept.secret);
      if (id === false) return undefined;
      const device = kept.devices.find((one) => one.id === id);
      if (device) device.lastSeenAt = now();
      return device;
    },
    devices: () => kept.devices,
    revoke(id) {
      const at = kept.devices.findIndex((one) => one.id === id);
      if (at < 0) return false;
      kept.devices.splice(at, 1);
      save();
      return true;
    },
  };
}

function nameFor(name: string, n: number): string {
  // Control characters and the like have no place in a list of names.
  const clean = name
    .replace(/[^\p{L}\p{N}\p{P}\p{Zs}]/gu, '')
    .trim()
    .slice(0, 40);
  return clean || `Device ${n}`;
}

function sameText(a: string, b: string): boolean {
  return a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b));
}

function read(file: string | undefined): Kept {
  try {
    if (file) return Kept.parse(JSON.parse(readFileSync(file, 'utf8')));
  } catch {
    // None yet, or not readable: devices have to join anew, which is the safe side.
  }
  return { secret: randomBytes(32).toString('hex'), devices: [] };
}
