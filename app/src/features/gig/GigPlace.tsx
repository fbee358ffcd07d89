// The night: what is on, where in it we are, what comes next, and looks as pads.

import { useRouter } from 'expo-router';
import { Text, View } from '@tamagui/core';
import { togglePlay } from '../../host/conduct/gestures';
import { useHovlix, useLive, useShow } from '../../host/hovlix';
import { Button, Column, Figures, Quiet, Row, Words } from '../../ui/pieces';
import { ScrollArea } from '../../ui/ScrollArea';
import { Play } from './Play';
import { Where } from './Where';

export function GigPlace() {
  const app = useHovlix();
  const router = useRouter();
  const show = useShow((one) => one);
  const current = useLive((live) => live.song?.id ?? null);
  const playing = useLive((live) => live.song?.playing ?? false);
  const songs = show?.songs ?? [];
  const at = Math.max(
    0,
    songs.findIndex((song) => song.id === current),
  );
  const song = songs[at];
  const next = songs[at + 1];
  if (!show) return null;
  if (!song)
    return (
      <ScrollArea>
        <Column padding={16} gap={12} alignItems="flex-start">
          <Text
            render="h1"
            margin={0}
            fontFamily="$heading"
            fontSize={26}
            lineHeight={30}
            fontWeight="650"
            color="$text"
          >
            Gig
          </Text>
          <Words>The set list is empty. Add a song and it stands here on the night.</Words>
          <Button kind="primary" onPress={() => router.push('/songs')}>
            To the songs
          </Button>
        </Column>
        <Play show={show} />
      </ScrollArea>
    );
  return (
    <ScrollArea>
      <Column paddingHorizontal={16} paddingTop={14} gap={6}>
        <Quiet>
          {at + 1} of {songs.length} · {show.name}
        </Quiet>
        <Text
          render="h1"
          margin={0}
          fontFamily="$heading"
          fontWeight="650"
          fontSize={31}
          lineHeight={36}
          color="$text"
          numberOfLines={1}
        >
          {song.title}
        </Text>
        <Where song={song} />
        <Row gap={8} paddingTop={6}>
          <View flex={1}>
            <Button kind="primary" onPress={() => togglePlay(app, song)}>
              {playing && current === song.id ? 'Pause' : `Play ${song.title}`}
            </Button>
          </View>
          {next && (
            <View flex={1}>
              <Button label={`Next song: ${next.title}`} onPress={() => void app.player.play(next, 0)}>
                <Words numberOfLines={1} fontWeight="600">
                  Next: {next.title}
                </Words>
              </Button>
            </View>
          )}
        </Row>
      </Column>
      <Play show={show} />
      <Column paddingHorizontal={16} gap={4}>
        <Text render="h2" margin={0} fontFamily="$heading" fontWeight="650" fontSize={16} lineHeight={22} color="$text">
          Set list
        </Text>
        {songs.map((one, i) => (
          <View
            key={one.id}
            render="button"
            aria-label={`Go to ${one.title}`}
            aria-current={one.id === song.id}
            onPress={() => app.player.seek(one, 0)}
            flexDirection="row"
            alignItems="center"
            gap={12}
            minHeight={48}
            padding={0}
            borderWidth={0}
            backgroundColor="transparent"
            cursor="pointer"
          >
            <Figures color={one.id === song.id ? '$doingText' : '$quiet'}>{String(i + 1).padStart(2, '0')}</Figures>
            <Words fontWeight={one.id === song.id ? '600' : '400'}>{one.title}</Words>
          </View>
        ))}
      </Column>
    </ScrollArea>
  );
}
