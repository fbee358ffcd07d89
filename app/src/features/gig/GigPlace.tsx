// The night: what is on, where in it we are, what comes next, and looks as pads.

import { useEffect, useState } from 'react';
import { useRouter } from 'expo-router';
import { useMedia } from '@tamagui/core';
import { useShow } from '../../host/hovlix';
import { keepAwake } from '../../host/screen';
import { Button, Column, Row, Title, Words } from '../../ui/pieces';
import { ScrollArea } from '../../ui/ScrollArea';
import { Head, songOfStop } from './now/Head';
import { Sections } from './now/Sections';
import { Where } from './now/Where';
import { Play } from './pads/Play';
import { PedalStrip } from './pedal/PedalStrip';
import { SetList } from './set/SetList';
import { SetSheet } from './set/SetSheet';
import { StageSheet } from './stage/StageSheet';
import { useMoment } from './use-moment';
import { WORDS } from './words';

export function GigPlace() {
  const router = useRouter();
  const show = useShow((one) => one);
  const { wide, short } = useMedia();
  const [sheet, setSheet] = useState<'set' | 'stage' | null>(null);
  const current = useMoment((moment) => songOfStop(moment)?.id);
  const song = show?.songs.find(({ id }) => id === current);
  useEffect(() => keepAwake(), []);
  if (!show) return null;
  if (show.songs.length === 0)
    return (
      <ScrollArea>
        <Column padding={16} gap={12} alignItems="flex-start">
          <Title render="h1" margin={0}>
            {WORDS.gig}
          </Title>
          <Words>{WORDS.setListEmpty}</Words>
          <Button kind="primary" onPress={() => router.push('/songs')}>
            {WORDS.toTheSongs}
          </Button>
        </Column>
        <Play show={show} />
      </ScrollArea>
    );
  return (
    <Row flex={1} minHeight={0} alignItems="stretch">
      <Column flex={1} minWidth={0} minHeight={0}>
        <Column flex={1} minHeight={0}>
          <ScrollArea>
            <Column paddingHorizontal={16} paddingTop={short ? 0 : 4} gap={6}>
              <Head song={song} onSet={() => setSheet('set')} onStage={() => setSheet('stage')} />
              {song && <Where song={song} />}
            </Column>
            <Column gap={8} paddingTop={8}>
              {song && <Sections song={song} />}
              <Play show={show} />
            </Column>
          </ScrollArea>
        </Column>
        <PedalStrip show={show} />
      </Column>
      {wide && (
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
