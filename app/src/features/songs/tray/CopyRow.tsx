// Bars lit like others: copied and pasted, repeated to the end of their section, or lit as the first section of that name.

import { useState } from 'react';
import { create } from 'zustand';
import type { Command } from '@hovlix/core/show';
import { barsOfSection, beatsOfBars, firstLike, sectionAt, type Song } from '@hovlix/core/song';
import { freshId } from '../../../host/fresh-id';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Button } from '../../../ui/pieces';
import { PickOne } from '../close-up/PickOne';
import { rangeText, type BarRange } from '../model';
import { WORDS } from './words';

type Copied = { readonly song: string; readonly range: BarRange };

/** The bars that were copied last, in this window. */
const useCopied = create<{ readonly copied: Copied | null }>(() => ({ copied: null }));

export const copyBars = (song: Song, range: BarRange): void => {
  useCopied.setState({ copied: { song: song.id, range } });
  useSession.getState().say(WORDS.copiedChooseWhere(rangeText(range)));
};

/** Degrees by which the colours of a copy are turned, and what that is called. */
const TURNS = [0, 60, 120, 180, -120, -60] as const;

/** What can be laid on the chosen bars, and how. */
export function useCopying(song: Song) {
  const { document } = useHovlix();
  const copied = useCopied((state) => state.copied);
  const mine = copied?.song === song.id ? copied.range : null;
  const say = (text: string) => useSession.getState().say(text, { undo: document.takingBack() });
  /** Lays the light of some bars on others, again and again until those are full. */
  const laying = (from: BarRange, onto: BarRange, turn = 0): Extract<Command, { readonly type: 'copy-bars' }> => {
    const stretch = beatsOfBars(song, from.first, from.last);
    const target = beatsOfBars(song, onto.first, onto.last);
    return {
      type: 'copy-bars',
      song: song.id,
      ...stretch,
      at: target.from,
      until: target.to,
      ...(turn === 0 ? {} : { turn }),
      id: freshId(),
    };
  };
  const lay = (from: BarRange, onto: BarRange, turn = 0) => {
    document.make(laying(from, onto, turn));
    const colours = turn === 0 ? '' : `, colours turned by ${turn}°`;
    say(WORDS.litLike(rangeText(onto), rangeText(from).toLowerCase(), colours));
  };
  return {
    copied: mine,
    laying,
    lay,
    /** One bar is where it begins; several are filled. */
    paste: (range: BarRange) => {
      if (!mine) return;
      const length = mine.last - mine.first;
      lay(mine, range.first === range.last ? { first: range.first, last: range.first + length } : range);
    },
    /** The copied bars, and as many from here on, change places. */
    swap: (range: BarRange) => {
      if (!mine) return;
      const stretch = beatsOfBars(song, mine.first, mine.last);
      document.make({
        type: 'swap-bars',
        song: song.id,
        ...stretch,
        at: beatsOfBars(song, range.first, range.first).from,
        id: freshId(),
      });
      const here = { first: range.first, last: range.first + mine.last - mine.first };
      say(WORDS.haveChangedPlaces(rangeText(mine), rangeText(here).toLowerCase()));
    },
  };
}

export function CopyRow({ song, range }: { readonly song: Song; readonly range: BarRange }) {
  const { copied, lay, paste, swap } = useCopying(song);
  const [turn, setTurn] = useState(0);
  const section = sectionAt(song, range.first);
  const whole = barsOfSection(song, range.first);
  const first = firstLike(song, range.first);
  const elsewhere = copied && (copied.first !== range.first || copied.last !== range.last);
  const apart = elsewhere && (range.first > copied.last || range.first + copied.last - copied.first < copied.first);
  return (
    <>
      <Button onPress={() => copyBars(song, range)}>{WORDS.copy}</Button>
      {elsewhere && <Button onPress={() => paste(range)}>{WORDS.paste(rangeText(copied).toLowerCase())}</Button>}
      {apart && <Button onPress={() => swap(range)}>{WORDS.swapWith(rangeText(copied).toLowerCase())}</Button>}
      {first && (
        <>
          <Button onPress={() => lay(barsOfSection(song, first.bar), whole, turn)}>
            {WORDS.lightItLike(first.name)}
          </Button>
          <PickOne
            label={WORDS.coloursCopy}
            value={String(turn)}
            choices={TURNS.map((one) => ({
              value: String(one),
              name: one === 0 ? 'in its colours' : WORDS.turned(String(one).replace('-', '−')),
            }))}
            onChoose={(value) => setTurn(Number(value))}
          />
        </>
      )}
      {range.last < whole.last && (
        <Button onPress={() => lay(range, { first: range.last + 1, last: whole.last })}>
          {WORDS.repeatEnd(section ? ` of ${section.name}` : '')}
        </Button>
      )}
    </>
  );
}
