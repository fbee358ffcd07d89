// The chosen bars of a hit lane: a pad, and a pattern or the drums of the music for it.

import { useMemo, useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { DRUMS, readEnvelopes, type Drum } from '@hovlix/core/music';
import { beatsOfBars, PATTERNS, strokeBeats, type HitLane, type Song } from '@hovlix/core/song';
import { envelopesQuery } from '../../../data/queries';
import { useHovlix, useShow } from '../../../host/hovlix';
import { Chip } from '../../../ui/Chip';
import { Button, Column, Quiet, Row } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { Choices } from '../Choices';
import { padsOf } from '../close-up/roll';
import { HEARD_NAMES, PATTERN_NAMES } from '../close-up/words';
import { patternStrokes, useFill } from '../hits';
import { rangeText, type BarRange } from '../model';
import { WORDS } from './words';

type Props = { readonly song: Song; readonly lane: HitLane; readonly range: BarRange };

/** Strokes that are weaker than this share of the strongest are left out here; Close-up has a threshold one can see. */
const THRESHOLD = 0.25;

export function HitFills({ song, lane, range }: Props) {
  const kit = useShow((show) => show.kits.find(({ id }) => id === lane.kit));
  const pads = useMemo(() => padsOf(kit, lane), [kit, lane]);
  const [chosen, setChosen] = useState<number | null>(null);
  const pad = pads.find(({ note }) => note === chosen) ?? pads[0];
  const strokes = useStrokes(song);
  const { from, to } = beatsOfBars(song, range.first, range.last);
  const fill = useFill(song, lane, pad, from, to, WORDS.in(rangeText(range).toLowerCase()));
  if (!pad) return <Quiet paddingHorizontal={16}>{WORDS.laneHasNo}</Quiet>;
  return (
    <Column gap={8} paddingBottom={4}>
      <ScrollArea sideways>
        <Row gap={6} paddingHorizontal={16} width="max-content" role="group" aria-label={WORDS.pad}>
          {pads.map(({ note, name }) => (
            <Chip key={note} small name={name} on={note === pad.note} onPress={() => setChosen(note)} />
          ))}
        </Row>
      </ScrollArea>
      <Choices label={WORDS.fillTheBars}>
        {PATTERNS.map((pattern) => (
          <Button
            key={pattern}
            label={WORDS.fillWith(PATTERN_NAMES[pattern].toLowerCase())}
            onPress={() => fill(patternStrokes(song, pattern, range.first, range.last))}
          >
            {PATTERN_NAMES[pattern]}
          </Button>
        ))}
        {strokes &&
          DRUMS.map((drum) => (
            <Button
              key={drum}
              label={WORDS.fillMusic(HEARD_NAMES[drum].toLowerCase())}
              onPress={() => fill(strokeBeats(song, strokes[drum], THRESHOLD))}
            >
              {WORDS.heard(HEARD_NAMES[drum])}
            </Button>
          ))}
      </Choices>
    </Column>
  );
}

export type Strokes = Readonly<Record<Drum, readonly { readonly time: number; readonly size: number }[]>>;

/** The drum strokes that were heard in a song; undefined where nobody knows them. */
export function useStrokes(song: Song): Strokes | undefined {
  const { sounds } = useHovlix();
  const bytes = useQuery(envelopesQuery(sounds, song.music?.hash)).data;
  return useMemo(() => {
    const read = bytes ? readEnvelopes(bytes, song.title) : undefined;
    if (!read?.ok) return undefined;
    const list = (drum: Drum) => {
      const { times, strengths } = read.value.strokes[drum];
      return Array.from(times, (time, i) => ({ time, size: strengths[i]! }));
    };
    return { kick: list('kick'), snare: list('snare'), hat: list('hat') };
  }, [bytes, song.title]);
}
