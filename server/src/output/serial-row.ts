// A row that leaves through a USB cable: DMX512 (ANSI E1.11) over a plain serial adapter or a framed serial interface.

import { SerialPort } from 'serialport';
import type { OutputRow, RowTrouble } from '@hovlix/core/connect';
import { DMX_BAUD, encodeDmxFrame, encodeDmxSlots, updateDmx } from '@hovlix/core/wire';
import { now } from '../clock';
import type { RowSender } from './row';

/** How soon a cable that went away is looked for again. */
const AGAIN_MS = 1000;
/** A write that takes longer than this has a cable that does not take it. */
const STUCK_AFTER = 1;
/** A zero at this rate holds the line low for 9 bits of 10.4 µs: a break of 94 µs where the port has none of its own. */
const BREAK_BAUD = 96_000;

export function serialRow(row: OutputRow): RowSender {
  const way = row.way as Extract<OutputRow['way'], { protocol: 'serial' }>;
  const silence = new Uint8Array(512);
  const bytes = way.kind === 'plain' ? encodeDmxSlots(silence) : encodeDmxFrame(silence);
  let port: SerialPort | undefined;
  let trouble: RowTrouble | null = null;
  let again: ReturnType<typeof setTimeout> | undefined;
  /** Seconds of the steady clock; 0 while the cable is free. */
  let busySince = 0;
  /** What came while the cable carried the frame before. */
  const newest = new Uint8Array(512);
  let waiting = false;
  let packets = 0;
  let ended = false;
  let breaks: 'port' | 'slow-zero' = 'port';

  const lost = (why: RowTrouble) => {
    if (ended) return;
    trouble = why;
    busySince = 0;
    if (port?.isOpen) port.close(() => undefined);
    port = undefined;
    clearTimeout(again);
    again = setTimeout(open, AGAIN_MS);
  };
  const open = () => {
    const fresh = new SerialPort({
      path: way.path,
      baudRate: DMX_BAUD,
      dataBits: 8,
      stopBits: 2,
      parity: 'none',
      autoOpen: false,
      lock: true,
    });
    fresh.on('error', (error) => lost(troubleOf(error, way.path)));
    fresh.on('close', () => port === fresh && lost({ code: 'port-gone', path: way.path }));
    fresh.open((error) => {
      if (error) return lost(troubleOf(error, way.path));
      if (ended) return fresh.close(() => undefined);
      port = fresh;
      trouble = null;
    });
  };
  open();

  /** Break and mark-after-break, then the slots. Timers make both longer than the least allowed, which E1.11 permits. */
  const sendPlain = async (open: SerialPort): Promise<void> => {
    if (breaks === 'port') {
      try {
        await set(open, true);
        await set(open, false);
      } catch {
        breaks = 'slow-zero';
      }
    }
    if (breaks === 'slow-zero') {
      await update(open, BREAK_BAUD);
      await write(open, Uint8Array.of(0));
      await update(open, DMX_BAUD);
    }
    await write(open, bytes);
  };

  const begin = (open: SerialPort, levels: Uint8Array): void => {
    busySince = now();
    waiting = false;
    updateDmx(bytes, way.kind, levels);
    (way.kind === 'plain' ? sendPlain(open) : write(open, bytes)).then(
      () => {
        busySince = 0;
        packets++;
        if (waiting && port === open) begin(open, newest);
      },
      (error: Error) => port === open && lost(troubleOf(error, way.path)),
    );
  };

  return {
    row,
    send(levels) {
      if (!port) return;
      if (busySince === 0) return begin(port, levels);
      if (now() - busySince > STUCK_AFTER) return lost({ code: 'port-slow', path: way.path });
      // The cable still carries the frame before: it gets the newest when it is free, never a queue.
      newest.set(levels);
      waiting = true;
    },
    fallSilent: () => undefined,
    trouble: () => trouble,
    packets: () => packets,
    close: () =>
      new Promise((resolve) => {
        ended = true;
        clearTimeout(again);
        if (port?.isOpen) port.close(() => resolve());
        else resolve();
      }),
  };
}

function troubleOf(error: Error, path: string): RowTrouble {
  const said = error.message;
  if (/ENOENT|no such file|not found|ENODEV|ENXIO|EIO|i\/o error|disconnected|Port is not open/i.test(said))
    return { code: 'port-gone', path };
  if (/EACCES|permission|access denied/i.test(said)) return { code: 'port-forbidden', path };
  if (/EBUSY|cannot lock|temporarily unavailable/i.test(said)) return { code: 'port-busy', path };
  return { code: 'port-fails', path, detail: said.replace(/^Error:?\s*/, '') };
}

const settle = (resolve: () => void, reject: (error: Error) => void) => (error: Error | null | undefined) =>
  error ? reject(error) : resolve();

function set(port: SerialPort, brk: boolean): Promise<void> {
  return new Promise((resolve, reject) => port.set({ brk }, settle(resolve, reject)));
}

function update(port: SerialPort, baudRate: number): Promise<void> {
  return new Promise((resolve, reject) => port.update({ baudRate }, settle(resolve, reject)));
}

function write(port: SerialPort, bytes: Uint8Array): Promise<void> {
  return new Promise((resolve, reject) => {
    port.write(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength), (error) => {
      if (error) reject(error);
    });
    port.drain(settle(resolve, reject));
  });
}
