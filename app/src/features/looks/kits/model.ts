// Hit kits in words, and one to begin with.

import { Hit, noteName, QUICK_PICKS, type HitTime, type Kit } from '@hovlix/core/light';
import { freshId } from '../../../host/fresh-id';
import { SPREAD_NAMES } from './words';

const timeWords = (time: HitTime): string =>
  'beats' in time
    ? `${tidy(time.beats)} ${time.beats === 1 ? 'beat' : 'beats'}`
    : `${Math.round(time.seconds * 1000)} ms`;
const tidy = (number: number) => String(Math.round(number * 100) / 100);

/** One line on what a hit does: “36 · odd · next · falls in 1 beat”. */
export function hitWords(hit: Hit): string {
  const notes = hit.low === hit.high ? noteName(hit.low) : `${noteName(hit.low)} to ${noteName(hit.high)}`;
  const pick = QUICK_PICKS.find((one) => JSON.stringify(one.pick) === JSON.stringify(hit.pick))?.name.toLowerCase();
  return [
    notes,
    pick ?? (hit.pick ? 'some places' : ''),
    hit.spread === 'all' ? '' : SPREAD_NAMES[hit.spread].toLowerCase(),
    hit.held ? 'while held' : '',
    `falls in ${timeWords(hit.release)}`,
    hit.choke ? `choke group ${hit.choke}` : '',
  ]
    .filter(Boolean)
    .join(' · ');
}

const seconds = (time: number) => ({ seconds: time });

/** A hit to begin with, on the next note that is free. */
export function newHit(kit: Kit): Hit {
  let note = 36;
  while (note < 127 && kit.hits.some(({ low, high }) => note >= Math.min(low, high) && note <= Math.max(low, high)))
    note++;
  return Hit.parse({
    id: freshId(),
    name: `Hit ${kit.hits.length + 1}`,
    low: note,
    high: note,
    level: 1,
    attack: seconds(0),
    hold: seconds(0.05),
    release: { beats: 0.5 },
  });
}
