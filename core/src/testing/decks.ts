// Songs, and the tracks of a DJ player that are some of them.

import { readShow, type Show } from '../show';
import { Song } from '../song';
import { testShow } from './show';

export const HASH = 'ab'.repeat(32);
const music = { hash: HASH, name: 'ferry.mp3', type: 'mp3' as const, bytes: 9 };
export const track = (title: string, more: object = {}) => ({ title, by: 'Tin Lantern', length: 200, ...more });
export const loaded = (title: string, more: object = {}) => ({ ...track(title), bpm: 120, firstBeat: 0.5, ...more });

export function playerShow(more: object = {}): Show {
  const plain = testShow();
  const base = plain.songs[0]!;
  const songs = [
    { id: 'ferry', title: 'Night Ferry', by: 'Tin Lantern', duration: 200, music },
    { id: 'tide', title: 'Low Tide', by: '', duration: 180, music: null },
    { id: 'tide-live', title: 'Low Tide', by: '', duration: 240, music: null },
  ].map((one) => Song.parse({ ...base, ...one }));
  const read = readShow({ ...plain, songs, ...more }, 'test');
  if (!read.ok) throw new Error(JSON.stringify(read.problem));
  return read.value;
}
