// Which phones and tablets may come in: one types the code that the host's screen shows, once, and is remembered.

import { randomBytes, randomInt, timingSafeEqual } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { parse, serialize } from 'cookie';
import { sign, unsign } from 'cookie-signature';
import { z } from 'zod';
import { Right } from '@hovlix/core/live';
import { asideOf, keptWhole, setAside } from '../keep/whole';

const Kept = z.strictObject({
  /** Signs the cookies. Whoever reads it could let himself in, so the file is its owner's only. */
  secret: z.string().min(32),
  devices: z.array(
    z.strictObject({
      id: z.string().min(16),
      name: z.string().min(1).max(40),
      addedAt: z.number(),
      lastSeenAt: z.number().nullable(),
      /** What it may do. Devices from before there were rights may play. */
      may: Right.default('player'),
    }),
  ),
  /** What the next device that joins may do. */
  grant: Right.default('player'),
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
  /** What the next device that joins may do. */
  readonly grant: () => Right;
  readonly grantTo: (may: Right) => void;
  readonly attempt: (code: string, name: string, from: string) => Attempt;
  /** The device a request's cookie stands for; undefined for anybody else. */
  readonly deviceOf: (cookieHeader: string | undefined) => PairedDevice | undefined;
  readonly devices: () => readonly PairedDevice[];
  /** A device without a code asks to be let in; `tag` is shown on both screens, so that the host lets in the right one. */
  readonly knock: (name: string, from: string) => { readonly id: string; readonly tag: string };
  readonly knocks: () => readonly { readonly id: string; readonly name: string; readonly tag: string }[];
  /** The host's answer; false where nobody knocks by that name any more. */
  readonly answer: (knock: string, letIn: boolean) => boolean;
  /** What became of a knock: its cookie once it is let in, or that it is over. */
  readonly knocked: (knock: string) => 'waiting' | 'over' | { readonly cookie: string };
  readonly setRight: (id: string, may: Right) => boolean;
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
/**
 * Wrong codes from everywhere together, after which all have to take their time: one try in so many ms. The code stays,
 * as whoever reads it off the computer must be able to type it; of a million codes a guest tries a few hundred at most
 * before it runs out.
 */
const CODE_GUESSES = 30;
const SPACED_MS = 2000;
const MOST_ADDRESSES = 1000;
/** Knocks are answered at once or not at all. One from each address: nobody fills the list. */
const KNOCK_FOR_MS = 2 * 60_000;
const MOST_KNOCKS = 20;

/**
 * @param file where devices are kept; without, only in memory. One that cannot be read is set aside, not overwritten.
 * @param now ms since 1970. @param trouble is told in words why they cannot be kept; null when they can again.
 * @param lost is told in words what could not be read.
 */
export function pairing(
  file: string | undefined,
  now: () => number,
  trouble: (why: string | null) => void = () => undefined,
  lost: (why: string) => void = () => undefined,
): Pairing {
  const kept = read(file, lost);
  let current = fresh();
  let guesses = 0;
  let nextTryAt = 0;
  type Knock = {
    readonly id: string;
    readonly name: string;
    readonly tag: string;
    readonly from: string;
    readonly until: number;
    cookie?: string;
  };
  let knocking: Knock[] = [];
  const slips = new Map<string, { wrong: number; waitUntil: number }>();

  function fresh(): { code: string; until: number } {
    return { code: String(randomInt(0, 1_000_000)).padStart(6, '0'), until: now() + CODE_FOR_MS };
  }
  const renew = () => {
    current = fresh();
    guesses = 0;
    nextTryAt = 0;
  };
  const code = () => {
    if (now() >= current.until) renew();
    return current;
  };
  const save =
    file === undefined
      ? () => undefined
      : keptWhole(
          file,
          () => JSON.stringify(kept, null, 2),
          (why) =>
            trouble(why && `The devices that joined are not kept: ${why}. After a restart they have to join anew.`),
        );
  const slip = (from: string): void => {
    const before = slips.get(from)?.wrong ?? 0;
    const wrong = before + 1;
    const wait = wrong >= LOCKED_AFTER ? LOCKED_FOR_MS : wrong < FREE_SLIPS ? 0 : 1000 * 2 ** (wrong - FREE_SLIPS);
    if (slips.size >= MOST_ADDRESSES) slips.delete(slips.keys().next().value!);
    slips.set(from, { wrong, waitUntil: now() + wait });
    if (++guesses >= CODE_GUESSES) nextTryAt = now() + SPACED_MS;
  };

  const waiting = () => (knocking = knocking.filter(({ until }) => now() < until));
  const joined = (name: string): { readonly device: PairedDevice; readonly cookie: string } => {
    const device: PairedDevice = {
      id: randomBytes(16).toString('hex'),
      name: nameFor(name, kept.devices.length + 1),
      addedAt: now(),
      lastSeenAt: now(),
      may: kept.grant,
    };
    kept.devices.push(device);
    save();
    const cookie = serialize(COOKIE, sign(device.id, kept.secret), {
      httpOnly: true,
      sameSite: 'lax',
      path: '/',
      maxAge: 400 * 24 * 3600,
    });
    return { device, cookie };
  };

  return {
    code,
    renew,
    attempt(typed, name, from) {
      const { waitUntil = 0 } = slips.get(from) ?? {};
      const notBefore = Math.max(waitUntil, nextTryAt);
      if (now() < notBefore) return { ok: false, why: 'wait', waitSeconds: Math.ceil((notBefore - now()) / 1000) };
      if (!sameText(typed.replace(/\D/g, ''), code().code)) {
        slip(from);
        const wait = Math.ceil(Math.max(0, (slips.get(from)?.waitUntil ?? 0) - now()) / 1000);
        return { ok: false, why: 'wrong', waitSeconds: wait };
      }
      if (kept.devices.length >= MOST_DEVICES) return { ok: false, why: 'full', waitSeconds: 0 };
      slips.delete(from);
      renew();
      return { ok: true, ...joined(name) };
    },
    grant: () => kept.grant,
    grantTo(may) {
      kept.grant = may;
      save();
    },
    knock(name, from) {
      const knock: Knock = {
        id: randomBytes(16).toString('hex'),
        name: nameFor(name, kept.devices.length + 1),
        tag: String(randomInt(0, 10_000)).padStart(4, '0'),
        from,
        until: now() + KNOCK_FOR_MS,
      };
      knocking = [...waiting().filter((one) => one.from !== from), knock].slice(-MOST_KNOCKS);
      return { id: knock.id, tag: knock.tag };
    },
    knocks: () =>
      waiting()
        .filter((one) => one.cookie === undefined)
        .map(({ id, name, tag }) => ({ id, name, tag })),
    answer(id, letIn) {
      const knock = waiting().find((one) => one.id === id && one.cookie === undefined);
      if (!knock) return false;
      if (!letIn) knocking = knocking.filter((one) => one !== knock);
      else if (kept.devices.length >= MOST_DEVICES) return false;
      else {
        knock.cookie = joined(knock.name).cookie;
        // Whoever was let in is not held up by what was guessed from there.
        slips.delete(knock.from);
      }
      return true;
    },
    knocked(id) {
      const knock = waiting().find((one) => one.id === id);
      if (!knock) return 'over';
      if (knock.cookie === undefined) return 'waiting';
      knocking = knocking.filter((one) => one !== knock);
      return { cookie: knock.cookie };
    },
    setRight(id, may) {
      const device = kept.devices.find((one) => one.id === id);
      if (!device) return false;
      device.may = may;
      save();
      return true;
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

/** Where none can be read, devices have to join anew, which is the safe side. */
function read(file: string | undefined, lost: (why: string) => void): Kept {
  if (file && existsSync(file))
    try {
      return Kept.parse(JSON.parse(readFileSync(file, 'utf8')));
    } catch {
      lost(`“${file}” cannot be read. It was set aside as ${asideOf(file)}; devices have to join anew.`);
      setAside(file);
    }
  return { secret: randomBytes(32).toString('hex'), devices: [], grant: 'player' };
}
