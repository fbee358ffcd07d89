// A passage tapped along while it plays: each tap is a beat, and the bars follow them there.

import { useCallback, useEffect, useRef, useState } from 'react';
import { View } from '@tamagui/core';
import { songTimeAt } from '@hovlix/core/live';
import { barAt } from '@hovlix/core/time';
import { tappedAnchors, timeOfBar, type Keeps, type Song } from '@hovlix/core/song';
import { seconds } from '@hovlix/core/units';
import { localSeconds, whenOf } from '../../../host/conduct/local-clock';
import { useHovlix, useLive } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { atOnce, type Stamped } from '../../../ui/at-once';
import { keyOf } from '../../../ui/key-of';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { barLabel } from '../model';
import { WORDS } from './words';

type Props = { readonly song: Song; readonly bar: number; readonly keeps: Keeps; readonly onDone: () => void };

const FEWEST = 4;

export function TapAlong({ song, bar, keeps, onDone }: Props) {
  const { conducting, document, player } = useHovlix();
  const say = useSession((session) => session.say);
  const playing = useLive((live) => live.song?.id === song.id && live.song.playing);
  const [taps, setTaps] = useState<readonly number[]>([]);
  const begun = useRef(false);
  useEffect(() => {
    if (begun.current) return;
    begun.current = true;
    // A bar to feel the tempo before the first tap.
    void player.play(song, Math.max(0, timeOfBar(song, bar - 1)));
  }, [player, song, bar]);
  const tap = useCallback(
    (event: Stamped) => {
      const live = conducting.store.getState().live.song;
      if (live?.id !== song.id || !live.playing) return;
      const ago = localSeconds() - whenOf(event);
      const at = songTimeAt(live, seconds(conducting.now() - ago));
      setTaps((now) => (now.length > 0 && at <= now.at(-1)! ? [at] : [...now, at]));
    },
    [conducting, song.id],
  );
  const takeKeys = useSession((session) => session.takeKeys);
  useEffect(
    () =>
      takeKeys((event) => {
        if (event.key !== ' ' && keyOf(event) !== 't') return false;
        if (!event.repeat) tap(event);
        return true;
      }),
    [takeKeys, tap],
  );
  const anchors = tappedAnchors(song, taps);
  const bpm = anchors && (60 * (taps.length - 1)) / (taps.at(-1)! - taps[0]!);
  const use = () => {
    if (!anchors) return;
    player.pause();
    if (!document.make({ type: 'set-passage', song: song.id, anchors: [...anchors], keeps })) return;
    const first = barAt(song.meter, anchors[0]!.beat).bar;
    say(WORDS.barsFollowYour(taps.length, barLabel(first)), { undo: document.takingBack() });
    onDone();
  };
  return (
    <Column gap={10} role="group" aria-label={WORDS.tapAlong}>
      <View
        render="button"
        aria-label={WORDS.tapABeat}
        {...atOnce(tap)}
        height={120}
        borderWidth={0}
        borderRadius={20}
        backgroundColor="$doing"
        alignItems="center"
        justifyContent="center"
        cursor="pointer"
        pressStyle={{ opacity: 0.8 }}
        style={{ touchAction: 'manipulation' }}
      >
        <Words fontSize={26} lineHeight={32} fontWeight="650" color="$onDoing">
          {taps.length === 0 ? WORDS.tapEachBeat : `${taps.length}`}
        </Words>
        {bpm !== undefined && <Words color="$onDoing">{WORDS.bpm(bpm.toFixed(1))}</Words>}
      </View>
      <Quiet>{WORDS.alsoSpaceOr}</Quiet>
      <Row gap={8} flexWrap="wrap">
        <Button kind="primary" disabled={taps.length < FEWEST || !anchors} onPress={use}>
          {WORDS.takeTheseTaps}
        </Button>
        <Button
          onPress={() => {
            setTaps([]);
            void player.play(song, Math.max(0, timeOfBar(song, bar - 1)));
          }}
        >
          {playing ? WORDS.onceMore : WORDS.playAgain}
        </Button>
        <Button
          kind="quiet"
          onPress={() => {
            player.pause();
            onDone();
          }}
        >
          {WORDS.cancel}
        </Button>
      </Row>
    </Column>
  );
}
