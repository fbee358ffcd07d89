// The night: what is on, where in it we are, what comes next, and looks as pads.

import { useEffect, useState } from 'react';
import { useRouter } from 'expo-router';
import { useMedia } from '@tamagui/core';
import type { Show } from '@hovlix/core/show';
import { useShow } from '../../host/hovlix';
import { keepAwake } from '../../host/screen';
import { Button, Column, Quiet, Row, Title } from '../../ui/pieces';
import { ScrollArea } from '../../ui/ScrollArea';
import { Head, songOfStop } from './now/Head';
import { Sections } from './now/Sections';
import { Where } from './now/Where';
import { Play } from './pads/Play';
import { footSwitches } from './pedal/model';
import { PedalStrip } from './pedal/PedalStrip';
import { SetList } from './set/SetList';
import { SetSheet } from './set/SetSheet';
import { StageSheet } from './stage/StageSheet';
import { useMoment } from './use-moment';
import { WORDS } from './words';

export function GigPlace() {
  const show = useShow((one) => one);
  const { wide, short } = useMedia();
  const [sheet, setSheet] = useState<'set' | 'stage' | null>(null);
  const current = useMoment((moment) => songOfStop(moment)?.id);
  const song = show?.songs.find(({ id }) => id === current);
  useEffect(() => keepAwake(), []);
  if (!show) return null;
  const songless = show.songs.length === 0;
  return (
    <Row flex={1} minHeight={0} alignItems="stretch">
      <Column flex={1} minWidth={0} minHeight={0}>
        <Column flex={1} minHeight={0}>
          <ScrollArea>
            <Column paddingHorizontal={16} paddingTop={short ? 0 : 4} gap={6}>
              {songless ? (
                <NoSongs show={show} />
              ) : (
                <Head song={song} onSet={() => setSheet('set')} onStage={() => setSheet('stage')} />
              )}
              {song && <Where song={song} />}
            </Column>
            <Column gap={8} paddingTop={8}>
              {song && <Sections song={song} />}
              <Play show={show} />
            </Column>
          </ScrollArea>
        </Column>
        {(!songless || footSwitches(show).length > 0) && <PedalStrip show={show} />}
      </Column>
      {wide && !songless && (
        <Column width={340} borderLeftWidth={1} borderColor="$line" minHeight={0}>
          <ScrollArea>
            <Column padding={16} gap={12}>
              <SetList show={show} />
            </Column>
          </ScrollArea>
        </Column>
      )}
      {sheet === 'set' && <SetSheet show={show} onClose={() => setSheet(null)} />}
      {sheet === 'stage' && <StageSheet onClose={() => setSheet(null)} />}
    </Row>
  );
}

/** The night can begin without a song: the way to one leaves the pads their room. */
function NoSongs({ show }: { readonly show: Show }) {
  const router = useRouter();
  return (
    <Row justifyContent="space-between" gap={12} paddingVertical={8}>
      <Column flex={1} minWidth={0}>
        <Title render="h1" margin={0}>
          {WORDS.gig}
        </Title>
        <Quiet>{show.looks.length > 0 ? WORDS.padsWithoutSong : WORDS.setListEmpty}</Quiet>
      </Column>
      <Button onPress={() => router.push('/songs')}>{WORDS.toTheSongs}</Button>
    </Row>
  );
}
