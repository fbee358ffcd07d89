// All songs of the show, in the order of the set; bringing in music.

import { useMemo, useState } from 'react';
import { fromEvent as filesOf } from 'file-selector';
import { router } from 'expo-router';
import FileMusic from 'lucide-react-native/icons/file-music';
import Search from 'lucide-react-native/icons/search';
import { Text, View } from '@tamagui/core';
import type { Song } from '@hovlix/core/song';
import { useHovlix, useLive, useMay, useShow } from '../../host/hovlix';
import { fetched } from '../../ui/fetched';
import { FileButton } from '../../ui/FileButton';
import { LongList } from '../../ui/LongList';
import { usePalette } from '../../ui/palette';
import { Button, ButtonText, Column, Figures, PlaceHead, Quiet, Row, Words } from '../../ui/pieces';
import { ScrollArea } from '../../ui/ScrollArea';
import { SortableList } from '../../ui/SortableList';
import { clockText } from '../../ui/clock-text';
import { meterText, shownSongs, songBpm, type SongSort } from './model';
import { IntakeList } from './intake/IntakeList';
import { useBringIn } from './intake/use-bring-in';
import { RECORDING_FILES } from './recording-files';
import { WORDS } from './list-words';

const MUSIC = `${RECORDING_FILES},.mid,.midi,.kar,.m3u,.m3u8`;
/** From so many songs on, they can be searched and sorted. */
const MANY = 4;

export function SongsPlace() {
  const songs = useShow((one) => one.songs);
  const name = useShow((one) => one.name);
  const may = useMay('operator');
  const bring = useBringIn();
  const palette = usePalette();
  const [over, setOver] = useState(false);
  const [text, setText] = useState<string | null>(null);
  const [sort, setSort] = useState<SongSort>('set');
  const [chosen, setChosen] = useState<string | null>(null);
  const [bare, setBare] = useState(false);
  if (!songs) return null;
  const shown = shownSongs(songs, text ?? '', sort);
  const opened = songs.find(({ id }) => id === chosen);
  return (
    <div
      style={{ height: '100%' }}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        void filesOf(event.nativeEvent).then((files) => bring(files.filter((file) => file instanceof File)));
      }}
    >
      <ScrollArea>
        <PlaceHead
          title={WORDS.songs}
          under={name}
          onUnder={() => router.push('/shows')}
          underLabel={WORDS.allShows(name ?? '')}
        >
          {songs.length >= MANY && (
            <Button
              label={WORDS.searchTheSongs}
              kind="quiet"
              pressed={text !== null}
              onPress={() => setText(text === null ? '' : null)}
            >
              <Search size={20} color={palette.text} aria-hidden />
            </Button>
          )}
          {may && (
            <FileButton label={WORDS.addMusic} accept={MUSIC} onFiles={bring} multiple primary>
              <FileMusic size={18} color={palette.onDoing} aria-hidden />
              <ButtonText kind="primary">{WORDS.addMusic}</ButtonText>
            </FileButton>
          )}
        </PlaceHead>
        {text !== null && <FindSongs text={text} sort={sort} onText={setText} onSort={setSort} />}
        <IntakeList />
        <View
          marginHorizontal={12}
          borderRadius={14}
          overflow="hidden"
          backgroundColor="$raised"
          borderWidth={over ? 2 : 0}
          borderColor="$doing"
        >
          <SongList
            songs={songs}
            shown={shown}
            sorted={text === null || (text === '' && sort === 'set')}
            may={may}
            onMore={setChosen}
          />
          {songs.length === 0 && <Empty />}
          {songs.length > 0 && shown.length === 0 && <Quiet padding={20}>{WORDS.noSongMatches}</Quiet>}
        </View>
        {may && (
          <Column paddingHorizontal={20} paddingTop={12} gap={10} alignItems="flex-start">
            <Quiet>{WORDS.dropWavFlac}</Quiet>
            <Button onPress={() => setBare(true)}>{WORDS.songWithoutMusic}</Button>
          </Column>
        )}
      </ScrollArea>
      {bare && <BareSheet onClose={() => setBare(false)} />}
      {opened && <SongSheet song={opened} songs={songs} onClose={() => setChosen(null)} />}
    </div>
  );
}

type ListProps = {
  readonly songs: readonly Song[];
  readonly shown: readonly Song[];
  /** They stand as they are played, so their order can be changed. */
  readonly sorted: boolean;
  readonly may: boolean;
  readonly onMore: (song: string) => void;
};

/** Seldom asked for, and so fetched when one of them is. */
const sheets = () => import('./list-sheets');
const BareSheet = fetched(async () => (await sheets()).BareSheet, { close: ({ onClose }) => onClose() });
const SongSheet = fetched(async () => (await sheets()).SongSheet, { close: ({ onClose }) => onClose() });
const FindSongs = fetched(async () => (await sheets()).FindSongs);

/** In pixels. */
const ROW_HEIGHT = 69;

function SongList({ songs, shown, sorted, may, onMore }: ListProps) {
  const { document } = useHovlix();
  const places = useMemo(() => new Map(songs.map(({ id }, i) => [id, i + 1])), [songs]);
  const row = (song: Song) => (
    <SongRow song={song} number={places.get(song.id)!} {...(may ? { onMore: () => onMore(song.id) } : {})} />
  );
  if (!may || !sorted)
    return (
      <LongList items={shown} height={ROW_HEIGHT}>
        {row}
      </LongList>
    );
  return (
    <SortableList
      items={shown}
      height={ROW_HEIGHT}
      nameOf={({ title }) => title}
      onOrder={(order) => {
        const moved = order.findIndex((one, i) => one !== shown[i]);
        // The first place that differs holds the song that came up, or the one after a song that went down.
        const came = shown[moved] === order[moved + 1] ? order[moved]! : shown[moved]!;
        const behind = order[order.indexOf(came) + 1];
        document.make({ type: 'move-song', song: came.id, before: behind?.id ?? null });
      }}
    >
      {row}
    </SortableList>
  );
}

function Empty() {
  return (
    <Column padding={32} gap={8} alignItems="center">
      <Words fontWeight="600">{WORDS.noSongYet}</Words>
      <Quiet textAlign="center">{WORDS.addRecordingIts}</Quiet>
    </Column>
  );
}

function SongRow({
  song,
  number,
  onMore,
}: {
  readonly song: Song;
  readonly number: number;
  readonly onMore?: () => void;
}) {
  const on = useLive((live) => live.song?.id === song.id && live.song.playing);
  return (
    <Row width="100%">
      <View
        render="button"
        aria-label={WORDS.open(song.title)}
        onPress={() => router.push(`/songs/${song.id}`)}
        flex={1}
        minWidth={0}
        flexDirection="row"
        alignItems="center"
        gap={8}
        minHeight={68}
        paddingLeft={0}
        paddingRight={0}
        paddingVertical={10}
        borderWidth={0}
        backgroundColor="transparent"
        cursor="pointer"
        hoverStyle={{ backgroundColor: '$well' }}
        pressStyle={{ opacity: 0.75 }}
      >
        <Figures width={number > 99 ? 30 : 22} color={on ? '$doingText' : '$quiet'}>
          {on ? '▶' : String(number).padStart(2, '0')}
        </Figures>
        <Column flex={1} minWidth={0} alignItems="flex-start">
          <Text
            fontFamily="$heading"
            fontWeight="650"
            fontSize={17}
            lineHeight={22}
            color="$text"
            numberOfLines={1}
            maxWidth="100%"
          >
            {song.title}
          </Text>
          <Quiet numberOfLines={1}>
            {[song.by, song.music ? null : 'no music'].filter(Boolean).join(' · ') || ' '}
          </Quiet>
        </Column>
        <Column alignItems="flex-end">
          <Figures color="$text">{WORDS.bpm(songBpm(song).toFixed(1))}</Figures>
          <Figures>
            {song.key ? `${song.key} · ` : ''}
            {meterText(song)} · {clockText(song.duration)}
          </Figures>
        </Column>
      </View>
      {onMore && (
        <Button label={WORDS.moreAbout(song.title)} kind="quiet" onPress={onMore}>
          ⋯
        </Button>
      )}
    </Row>
  );
}
