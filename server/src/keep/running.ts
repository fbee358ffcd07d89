// The show that was conducted last, kept in the home folder: a server that starts goes on with it.

import { existsSync, readFileSync } from 'node:fs';
import { z } from 'zod';
import type { Running } from '@hovlix/core/conduct';
import { wordsFor } from '@hovlix/core/problem';
import { CHAIN_KEPT, readShow } from '@hovlix/core/show';
import { AGAIN_MS, asideOf, reasonOf, setAside, writeWhole, writeWholeSoon } from './whole';

const File = z.object({ chain: z.array(z.string()).min(1).max(CHAIN_KEPT), show: z.unknown() });

export type RunningCopy = {
  readonly read: () => Running | undefined;
  /** Writes it soon: the newest of several, at most one a second. */
  readonly keep: (running: Running) => void;
  /** Writes what waits, at the end. */
  readonly close: () => void;
};

/** An edit is at most this long in memory only. */
const SOON_MS = 500;

/**
 * @param file where it is kept. Written whole beside it and renamed, so that a crash leaves the old one or the new one.
 * @param trouble is told in words when it cannot be written, null when it can again; the light goes on.
 * @param lost is told in words what could not be read.
 */
export function runningCopy(
  file: string,
  trouble: (why: string | null) => void,
  lost: (why: string) => void,
): RunningCopy {
  /** What is not in the file yet. */
  let waiting: Running | undefined;
  let closed = false;
  let timer: NodeJS.Timeout | undefined;
  let writing: Promise<void> = Promise.resolve();
  const said = (error: unknown) =>
    trouble(`The show is not kept on the computer: ${reasonOf(error)}. It is lost there when Hovlix stops.`);
  const text = ({ show, chain }: Running) => JSON.stringify({ chain, show });
  const write = () => {
    timer = undefined;
    const running = waiting;
    if (!running) return;
    writing = writing.then(async () => {
      try {
        await writeWholeSoon(file, text(running), () => !closed);
        if (waiting === running) waiting = undefined;
        trouble(null);
      } catch (error) {
        said(error);
        timer ??= setTimeout(write, AGAIN_MS).unref();
      }
    });
  };
  return {
    read() {
      if (!existsSync(file)) return undefined;
      try {
        const kept = File.parse(JSON.parse(readFileSync(file, 'utf8')));
        const show = readShow(kept.show, 'the show that was on last');
        if (show.ok) return { show: show.value, chain: kept.chain };
        lost(`${wordsFor(show.problem)} It was set aside as ${asideOf(file)}.`);
      } catch (error) {
        lost(
          `The show that was on last cannot be read (${(error as Error).message}). It was set aside as ${asideOf(file)}.`,
        );
      }
      setAside(file);
      return undefined;
    },
    keep(running) {
      waiting = running;
      timer ??= setTimeout(write, SOON_MS);
    },
    close() {
      closed = true;
      clearTimeout(timer);
      if (!waiting) return;
      try {
        writeWhole(file, text(waiting));
      } catch (error) {
        said(error);
      }
    },
  };
}
