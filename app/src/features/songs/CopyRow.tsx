// Bars lit like others: copied and pasted, repeated to the end of their section, or lit as the first section of that name.

import { create } from 'zustand';
import { barsOfSection, beatsOfBars, firstLike, sectionAt, type Song } from '@hovlix/core/song';
import { freshId } from '../../host/fresh-id';
import { useHovlix } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { Button } from '../../ui/pieces';
import { rangeText, type BarRange } from './model';

type Copied = { readonly song: string; readonly range: BarRange };

/** The bars that were copied last, in this window. */
const useCopied = create<{ readonly copied: Copied | null }>(() => ({ copied: null }));

export const copyBars = (song: Song, range: BarRange): void => {
  useCopied.setState({ copied: { song: song.id, range } });
  useSession.getState().say(`${rangeText(range)} copied. Choose where to paste.`);
};

/** What can be laid on the chosen bars, and how. */
export function useCopying(song: Song) {
  const { document } = useHovlix();
  const copied = useCopied((state) => state.copied);
  const mine = copied?.song === song.id ? copied.range : null;
  /** Lays the light of some bars on others, again and again until those are full. */
  const lay = (from: BarRange, onto: BarRange) => {
    const stretch = beatsOfBars(song, from.first, from.last);
    const target = beatsOfBars(song, onto.first, onto.last);
    document.make({ type: 'copy-bars', song: song.id, ...stretch, at: target.from, until: target.to, id: freshId() });
    useSession.getState().say(`${rangeText(onto)} lit like ${rangeText(from).toLowerCase()}.`, { undo: document.takingBack() }); // prettier-ignore
  };
  return {
    copied: mine,
    lay,
    /** One bar is where it begins; several are filled. */
    paste: (range: BarRange) => {
      if (!mine) return;
      const length = mine.last - mine.first;
      lay(mine, range.first === range.last ? { first: range.first, last: range.first + length } : range);
    },
  };
}

export function CopyRow({ song, range }: { readonly song: Song; readonly range: BarRange }) {
  const { copied, lay, paste } = useCopying(song);
  const section = sectionAt(song, range.first);
  const whole = barsOfSection(song, range.first);
  const first = firstLike(song, range.first);
  return (
    <>
      <Button onPress={() => copyBars(song, range)}>Copy</Button>
      {copied && (copied.first !== range.first || copied.last !== range.last) && (
        <Button onPress={() => paste(range)}>Paste {rangeText(copied).toLowerCase()}</Button>
      )}
      {first && <Button onPress={() => lay(barsOfSection(song, first.bar), whole)}>Light it like {first.name}</Button>}
      {range.last < whole.last && (
        <Button onPress={() => lay(range, { first: range.last + 1, last: whole.last })}>
          Repeat to the end{section ? ` of ${section.name}` : ''}
        </Button>
      )}
    </>
  );
}
