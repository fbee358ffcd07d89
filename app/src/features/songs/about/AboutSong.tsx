// All about the song that one works on: what it is called, where its markers are, its recording, how it is played here.

import { View } from '@tamagui/core';
import { barAt } from '@hovlix/core/time';
import { sectionAt, type Song } from '@hovlix/core/song';
import { Column, Figures, Words } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { placeText } from '../close-up/grid';
import { Playback } from './Playback';
import { Recording } from './Recording';
import { SongFields } from './SongFields';
import { WORDS } from './words';

type Props = { readonly song: Song; readonly onGo: (bar: number) => void; readonly onClose: () => void };

export function AboutSong({ song, onGo, onClose }: Props) {
  const go = (bar: number) => {
    onClose();
    onGo(bar);
  };
  return (
    <Sheet title={song.title} onClose={onClose}>
      <SongFields song={song} />
      <Playback />
      <Recording song={song} />
      <Markers song={song} onGo={go} />
    </Sheet>
  );
}

function Markers({ song, onGo }: Omit<Props, 'onClose'>) {
  const markers = song.markers ?? [];
  if (markers.length === 0) return null;
  return (
    <Column gap={2} role="group" aria-label={WORDS.markers}>
      <Words fontWeight="600">{WORDS.markers}</Words>
      {markers.map(({ id, at, name }) => {
        const { bar } = barAt(song.meter, at);
        const section = sectionAt(song, bar)?.name;
        return (
          <View
            key={id}
            render="button"
            aria-label={WORDS.goTo(name)}
            onPress={() => onGo(bar)}
            minHeight={44}
            flexDirection="row"
            alignItems="center"
            gap={10}
            padding={0}
            borderWidth={0}
            backgroundColor="transparent"
            cursor="pointer"
          >
            <Figures width={64} flexShrink={0} textAlign="left" color="$text">
              {placeText(song, at)}
            </Figures>
            <Words textAlign="left" numberOfLines={1} flexShrink={1}>
              {name}
              {section ? ` · ${section}` : ''}
            </Words>
          </View>
        );
      })}
    </Column>
  );
}
