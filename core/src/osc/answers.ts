// Tells tablets which of their buttons are on and where their faders stand, at the addresses they send from themselves.

import { isLit, type BareHost } from '../gear';
import { placeFor, type Control } from '../gig';
import { turnPlace, type Moment } from '../live';
import { encodeOsc } from '../wire';

/** Whoever is told. */
export type OscListeners = {
  /** The same array until somebody comes or goes. */
  readonly listeners: () => readonly string[];
  readonly sendTo: (listener: string, bytes: Uint8Array) => void;
};

const LOOK_MS = 50;
/** A fader that is dragged is not told where it is: only what has stood still for so many looks. */
const STILL = 6;

/** @returns what ends it. */
export function answerOsc(host: BareHost, { listeners, sendTo }: OscListeners): () => void {
  /** By control: what was told, what was seen last, and for how many looks. */
  const books = new Map<string, { told?: number; seen: number; looks: number }>();
  let known: readonly string[] = [];
  return host.time.every(LOOK_MS, () => {
    const all = listeners();
    const moment = all.length > 0 ? host.moment() : undefined;
    if (!moment || all !== known) books.clear();
    known = all;
    for (const control of moment?.show.controls ?? []) {
      const { source } = control;
      const value = source?.by === 'osc' ? shownBy(moment!, control) : undefined;
      if (source?.by !== 'osc' || value === undefined) continue;
      const book = books.get(control.id) ?? { seen: value, looks: STILL };
      books.set(control.id, book);
      book.looks = book.seen === value ? book.looks + 1 : 0;
      book.seen = value;
      if (book.told === value || (control.kind === 'fader' && book.looks < STILL)) continue;
      book.told = value;
      const bytes = encodeOsc(source.address, 'f', [value * source.full]);
      for (const one of all) sendTo(one, bytes);
    }
  });
}

/** 0…1; undefined for what does nothing that can be shown. */
function shownBy(moment: Moment, control: Control): number | undefined {
  if (control.kind === 'switch') {
    const lit = isLit(moment, control);
    return lit === undefined ? undefined : Number(lit);
  }
  const place = turnPlace(moment, control.turns);
  return place === null ? undefined : Math.round(placeFor(control, place) * 1000) / 1000;
}
