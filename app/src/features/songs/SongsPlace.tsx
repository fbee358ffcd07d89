// All songs of the show, bringing in music, and the show itself as a file.

import { useRef, useState } from 'react';
import { useRouter } from 'expo-router';
import FileMusic from 'lucide-react-native/icons/file-music';
import FolderOpen from 'lucide-react-native/icons/folder-open';
import Share2 from 'lucide-react-native/icons/share-2';
import { useQuery } from '@tanstack/react-query';
import { Text, View } from '@tamagui/core';
import { wordsFor } from '@hovlix/core/problem';
import type { Song } from '@hovlix/core/song';
import { analyseFile, bringInShow, bundleOf, type Job } from '../../host/bring-in';
import { useHovlix, useLive, useShow } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { showsQuery } from '../../data/queries';
import { usePalette } from '../../ui/palette';
import { Button, ButtonText, Column, Figures, PlaceHead, Quiet, Row, Words } from '../../ui/pieces';
import { ScrollArea } from '../../ui/ScrollArea';
import { clockText, meterText, songBpm } from './model';

const MUSIC = '.wav,.flac,.mp3,.ogg,audio/*';

export function SongsPlace() {
  const show = useShow((one) => one);
  const bring = useBringIn();
  const palette = usePalette();
  const [over, setOver] = useState(false);
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
        bring.files([...event.dataTransfer.files]);
      }}
    >
      <ScrollArea>
        <PlaceHead title="Songs" under={show?.name}>
          <FileButton label="Add music" accept={MUSIC} onFiles={bring.files} primary>
            <FileMusic size={18} color={palette.onDoing} aria-hidden />
            <ButtonText kind="primary">Add music</ButtonText>
          </FileButton>
        </PlaceHead>
        {bring.job && <Progress name={bring.job.name} share={bring.job.share} onCancel={bring.job.cancel} />}
        <View
          marginHorizontal={12}
          borderRadius={14}
          overflow="hidden"
          backgroundColor="$raised"
          borderWidth={over ? 2 : 0}
          borderColor="$doing"
        >
          {show?.songs.map((song, i) => (
            <SongRow key={song.id} song={song} number={i + 1} />
          ))}
          {show?.songs.length === 0 && <Empty />}
        </View>
        <Quiet paddingHorizontal={20} paddingTop={12}>
          Drop a WAV, FLAC, MP3 or OGG file anywhere on this page, or a .hovlix show.
        </Quiet>
        <ShowFile onFiles={bring.files} />
      </ScrollArea>
    </div>
  );
}

function Empty() {
  return (
    <Column padding={32} gap={8} alignItems="center">
      <Words fontWeight="600">No song yet</Words>
      <Quiet textAlign="center">Add a recording: its tempo, beats and bars are found for you.</Quiet>
    </Column>
  );
}

function SongRow({ song, number }: { readonly song: Song; readonly number: number }) {
  const router = useRouter();
  const on = useLive((live) => live.song?.id === song.id && live.song.playing);
  return (
    <View
      render="button"
      aria-label={`Open ${song.title}`}
      onPress={() => router.push(`/songs/${song.id}`)}
      flexDirection="row"
      alignItems="center"
      gap={14}
      minHeight={68}
      paddingHorizontal={16}
      paddingVertical={10}
      borderWidth={0}
      borderTopWidth={number > 1 ? 1 : 0}
      borderColor="$line"
      backgroundColor="transparent"
      cursor="pointer"
      hoverStyle={{ backgroundColor: '$well' }}
      pressStyle={{ opacity: 0.75 }}
    >
      <Figures width={22} color={on ? '$doingText' : '$quiet'}>
        {on ? '▶' : String(number).padStart(2, '0')}
      </Figures>
      <Column flex={1} minWidth={0} alignItems="flex-start">
        <Text fontFamily="$heading" fontWeight="650" fontSize={17} lineHeight={22} color="$text" numberOfLines={1}>
          {song.title}
        </Text>
        <Quiet numberOfLines={1}>{[song.by, song.music ? null : 'no music'].filter(Boolean).join(' · ') || ' '}</Quiet>
      </Column>
      <Column alignItems="flex-end">
        <Figures color="$text">{songBpm(song).toFixed(1)} bpm</Figures>
        <Figures>
          {meterText(song)} · {clockText(song.duration)}
        </Figures>
      </Column>
    </View>
  );
}

function Progress({
  name,
  share,
  onCancel,
}: {
  readonly name: string;
  readonly share: number;
  readonly onCancel: () => void;
}) {
  return (
    <Row margin={12} marginTop={0} padding={16} gap={16} borderRadius={14} backgroundColor="$raised" role="status">
      <Column flex={1} gap={8}>
        <Words numberOfLines={1}>Listening to {name}</Words>
        <View
          height={8}
          borderRadius={4}
          backgroundColor="$well"
          overflow="hidden"
          role="progressbar"
          aria-label={`Listening to ${name}`}
          aria-valuenow={Math.round(share * 100)}
        >
          <View height={8} width={`${Math.round(share * 100)}%`} backgroundColor="$doing" />
        </View>
        <Quiet>{share < 0.85 ? 'decoding the sound' : 'finding beats and bars'}</Quiet>
      </Column>
      <Button onPress={onCancel}>Cancel</Button>
    </Row>
  );
}

/** The show as a file, and the other shows on this device. */
function ShowFile({ onFiles }: { readonly onFiles: (files: File[]) => void }) {
  const app = useHovlix();
  const palette = usePalette();
  const say = useSession((session) => session.say);
  const show = useShow((one) => one);
  const shows = useQuery(showsQuery(app.repository));
  const theme = useSession((session) => session.theme);
  const setTheme = useSession((session) => session.setTheme);
  const others = (shows.data ?? []).filter((one) => one.id !== show?.id);
  const exportShow = async () => {
    if (!show) return;
    const url = URL.createObjectURL(await bundleOf(show, app.repository));
    const link = window.document.createElement('a');
    link.href = url;
    link.download = `${
      show.name
        .replaceAll(/[^\p{L}\p{N}]+/gu, '-')
        .replaceAll(/^-|-$/g, '')
        .toLowerCase() || 'show'
    }.hovlix`;
    link.click();
    setTimeout(() => URL.revokeObjectURL(url), 10000);
    say(`Exported as ${link.download}`);
  };
  const switchTo = async (id: string) => {
    const kept = await app.repository.load(id);
    if (kept?.ok) await app.document.open(kept.value);
    else say(kept ? wordsFor(kept.problem) : 'That show is not here any more.', { tone: 'bad' });
    void shows.refetch();
  };
  return (
    <Column padding={16} gap={12} marginTop={12}>
      <Text render="h2" margin={0} fontFamily="$heading" fontWeight="650" fontSize={16} color="$text">
        This show
      </Text>
      <Row gap={8} flexWrap="wrap">
        <Button onPress={() => void exportShow()}>
          <Share2 size={18} color={palette.text} aria-hidden />
          <ButtonText>Export</ButtonText>
        </Button>
        <FileButton label="Open a .hovlix show" accept=".hovlix" onFiles={onFiles}>
          <FolderOpen size={18} color={palette.text} aria-hidden />
          <ButtonText>Open a show</ButtonText>
        </FileButton>
        <Button onPress={() => setTheme(theme === 'night' ? 'day' : 'night')}>
          {theme === 'night' ? 'Day theme' : 'Night theme'}
        </Button>
      </Row>
      {others.length > 0 && <Quiet>Also on this device:</Quiet>}
      <Row gap={8} flexWrap="wrap">
        {others.map((one) => (
          <Button key={one.id} onPress={() => void switchTo(one.id)}>
            {one.name}
          </Button>
        ))}
      </Row>
    </Column>
  );
}

function FileButton({
  label,
  accept,
  onFiles,
  primary = false,
  children,
}: {
  readonly label: string;
  readonly accept: string;
  readonly onFiles: (files: File[]) => void;
  readonly primary?: boolean;
  readonly children: React.ReactNode;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        aria-label={label}
        hidden
        onChange={(event) => {
          onFiles([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      <Button kind={primary ? 'primary' : 'plain'} onPress={() => input.current?.click()}>
        {children}
      </Button>
    </>
  );
}

/** One file after the other: shows are opened, everything else is taken for music. */
function useBringIn() {
  const app = useHovlix();
  const router = useRouter();
  const say = useSession((session) => session.say);
  const hush = useSession((session) => session.hush);
  const [job, setJob] = useState<{ name: string; share: number; cancel: () => void } | null>(null);
  const running = useRef<Job | null>(null);

  const one = async (file: File): Promise<void> => {
    if (/\.hovlix$/i.test(file.name)) {
      const problem = await bringInShow(
        file.name,
        new Uint8Array(await file.arrayBuffer()),
        app.repository,
        app.document,
      );
      return say(problem ? wordsFor(problem) : `Opened ${file.name}`, { tone: problem ? 'bad' : 'good' });
    }
    const mine = analyseFile(file, app.repository, (share) => setJob((now) => (now ? { ...now, share } : now)));
    running.current = mine;
    setJob({ name: file.name, share: 0, cancel: mine.cancel });
    const song = await mine.done;
    running.current = null;
    setJob(null);
    if (!song.ok) return say(wordsFor(song.problem), { tone: song.problem.code === 'cancelled' ? 'good' : 'bad' });
    app.document.make({ type: 'add-song', added: song.value });
    router.push(`/songs/${song.value.id}`);
  };
  const files = async (list: File[]) => {
    if (running.current) return say('One song is being listened to. Add the next when it is done.');
    hush();
    for (const file of list) await one(file);
  };
  return { job, files: (list: File[]) => void files(list) };
}
