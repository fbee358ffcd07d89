// Rehearsal: a stretch that comes round again while one works on it, and slower music.

import { useEffect } from 'react';
import Repeat from 'lucide-react-native/icons/repeat';
import X from 'lucide-react-native/icons/x';
import { useStore } from 'zustand';
import { timeOfBar, type Song } from '@hovlix/core/song';
import { useHovlix } from '../../host/hovlix';
import { useSession } from '../../host/session';
import type { Player } from '../../host/sound/player';
import { usePalette } from '../../ui/palette';
import { Button, Row, Words } from '../../ui/pieces';
import { Segments } from '../../ui/Segments';
import { barLabel, barOfTime, rangeText, type BarRange } from './model';
import { WORDS } from './words';

const RATES = [
  { value: '0.5', name: '50 %' },
  { value: '0.75', name: '75 %' },
  { value: '1', name: '100 %' },
] as const;

/** Plays from a bar; as many bars earlier as this device is set to. */
export function playFrom(player: Player, song: Song, bar: number): void {
  const { leadIn } = useSession.getState();
  void player.play(song, Math.max(0, timeOfBar(song, bar - leadIn)));
}

/** Loops the chosen bars, from their start; pressed again, the music goes on past them. */
export function LoopButton({ song, range }: { readonly song: Song; readonly range: BarRange }) {
  const { player } = useHovlix();
  const loop = useStore(player.store, (state) => state.loop);
  const [from, to] = [timeOfBar(song, range.first), timeOfBar(song, range.last + 1)];
  const on = loop?.song === song.id && loop.from === from && loop.to === to;
  const press = () => {
    player.loopOver(on ? null : { song: song.id, from, to });
    if (!on) playFrom(player, song, range.first);
  };
  return (
    <Button onPress={press} pressed={on}>
      {WORDS.loop}
    </Button>
  );
}

/** What is looped and how fast, for as long as something is. Whoever leaves the song leaves that behind. */
export function Rehearsal({ song }: { readonly song: Song }) {
  const { player } = useHovlix();
  const palette = usePalette();
  const loop = useStore(player.store, (state) => state.loop);
  const rate = useStore(player.store, (state) => state.rate);
  useEffect(
    () => () => {
      player.loopOver(null);
      player.slow(1);
    },
    [player, song.id],
  );
  if (!loop && rate === 1) return null;
  const range = loop && { first: barOfTime(song, loop.from), last: barOfTime(song, loop.to) - 1 };
  return (
    <Row
      paddingHorizontal={16}
      paddingVertical={6}
      gap={8}
      justifyContent="space-between"
      borderBottomWidth={1}
      borderColor="$line"
    >
      {range ? (
        <Row gap={6} flexShrink={1} minWidth={0}>
          <Repeat size={18} color={palette.doing} aria-hidden />
          <Words
            fontWeight="600"
            whiteSpace="nowrap"
            testID="loop"
            aria-label={WORDS.looping(rangeText(range).toLowerCase())}
          >
            {barLabel(range.first)} – {barLabel(range.last)}
          </Words>
          <Button label={WORDS.endTheLoop} kind="quiet" onPress={() => player.loopOver(null)}>
            <X size={18} color={palette.text} aria-hidden />
          </Button>
        </Row>
      ) : (
        <Words>{WORDS.slower}</Words>
      )}
      <Segments
        label={WORDS.speedMusic}
        value={String(rate)}
        choices={RATES}
        onChoose={(value) => player.slow(Number(value))}
      />
    </Row>
  );
}
