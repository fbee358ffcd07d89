// The shows on this device: begin one, open one, look after them.

import { useEffect, useState } from 'react';
import { router } from 'expo-router';
import FolderOpen from 'lucide-react-native/icons/folder-open';
import Settings from 'lucide-react-native/icons/settings';
import { useQuery } from '@tanstack/react-query';
import { Text, View } from '@tamagui/core';
import { wordsFor } from '@hovlix/core/problem';
import { nextStep } from '@hovlix/core/show';
import { roomQuery } from '../../data/queries';
import { DEMO } from '../../host/files/demo-music';
import type { ShowEntry } from '../../host/document/repository';
import { useHovlix, useLink, useMay, useShow, useShows } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { FileButton } from '../../ui/FileButton';
import { usePalette } from '../../ui/palette';
import { Button, ButtonText, Column, PlaceHead, Quiet, Row, Words, Grid } from '../../ui/pieces';
import { ScrollArea } from '../../ui/ScrollArea';
import { useOpenFile } from '../../ui/use-open-file';
import { Portrait } from './Portrait';
import { ShowSheet } from './ShowSheet';
import { sizeText } from './model';
import { WORDS } from './words';

export function ShowsPlace() {
  const app = useHovlix();
  const palette = usePalette();
  const may = useMay('operator');
  const list = useShows((state) => state.list);
  const open = useShow((show) => show);
  const say = useSession((session) => session.say);
  const openFile = useOpenFile();
  const [chosen, setChosen] = useState<string | null>(null);
  useEffect(() => {
    // The one that is open is in the list once it is written.
    void app.document.written().then(app.shows.refresh, app.shows.refresh);
  }, [app, open?.id, open?.name]);
  const shown = [...(list ?? [])].sort((a, b) => b.changedAt - a.changedAt);
  const opened = shown.find(({ id }) => id === chosen);
  return (
    <ScrollArea>
      <PlaceHead title={WORDS.shows}>
        <Button label={WORDS.settings} kind="quiet" onPress={() => router.push('/settings')}>
          <Settings size={20} color={palette.text} aria-hidden />
        </Button>
        <FileButton label={WORDS.openHovlixFile} accept=".hovlix" onFiles={openFile}>
          <FolderOpen size={18} color={palette.text} aria-hidden />
          <ButtonText>{WORDS.openAFile}</ButtonText>
        </FileButton>
      </PlaceHead>
      <Column paddingHorizontal={12} gap={12}>
        {may && (
          <Row>
            <Button kind="primary" onPress={() => void app.shows.begin(WORDS.myShow)}>
              {WORDS.beginMyOwn}
            </Button>
          </Row>
        )}
        <Resume />
        <Grid gridTemplateColumns="repeat(auto-fill, minmax(300px, 1fr))" gap={12}>
          {shown.map((entry) => (
            <ShowCard
              key={entry.id}
              entry={entry}
              on={entry.id === open?.id}
              onOpen={() =>
                void app.shows.open(entry.id).then((problem) => {
                  if (problem) return say(wordsFor(problem), { tone: 'bad' });
                  if (!app.shows.store.getState().asking) router.push('/songs');
                })
              }
              onMore={() => setChosen(entry.id)}
            />
          ))}
        </Grid>
        {!shown.some(({ id }) => id === DEMO) && (
          <Row>
            <Button onPress={() => void app.shows.openDemo()}>{WORDS.lookAroundDemo}</Button>
          </Row>
        )}
        <Room />
      </Column>
      {opened && <ShowSheet entry={opened} on={opened.id === open?.id} onClose={() => setChosen(null)} />}
    </ScrollArea>
  );
}

type CardProps = {
  readonly entry: ShowEntry;
  readonly on: boolean;
  readonly onOpen: () => void;
  readonly onMore: () => void;
};

function ShowCard({ entry, on, onOpen, onMore }: CardProps) {
  const here = useLink((link) => link.here);
  const state = on ? (here ? 'open on this screen' : 'on stage') : null;
  return (
    <View
      borderRadius={14}
      overflow="hidden"
      backgroundColor="$raised"
      borderWidth={2}
      borderColor={on ? '$doing' : '$raised'}
    >
      <View
        render="button"
        aria-label={WORDS.open(entry.name)}
        onPress={onOpen}
        padding={0}
        borderWidth={0}
        backgroundColor="transparent"
        cursor="pointer"
        alignItems="stretch"
        pressStyle={{ opacity: 0.8 }}
      >
        <Portrait id={entry.id} stamp={entry.head} height={112} />
      </View>
      <Row paddingLeft={16} paddingRight={6} paddingVertical={10} gap={8} justifyContent="space-between">
        <Column flex={1} minWidth={0}>
          <Words fontWeight="600" fontSize={17} lineHeight={22} numberOfLines={1}>
            {entry.name}
          </Words>
          <Quiet numberOfLines={1}>
            {count(entry.songs, 'song')} · {count(entry.lamps, 'lamp')} · {sizeText(entry.bytes)}
          </Quiet>
          <Quiet numberOfLines={1}>
            {state && (
              <Text fontWeight="600" color="$doingText">
                {state} ·{' '}
              </Text>
            )}
            {WORDS.changed}
            {ago(entry.changedAt)}
          </Quiet>
        </Column>
        <Button label={WORDS.moreAbout(entry.name)} kind="quiet" onPress={onMore}>
          ⋯
        </Button>
      </Row>
    </View>
  );
}

/** The first steps of the open show, where somebody left them. */
function Resume() {
  const show = useShow((one) => one);
  const left = useSession((session) => session.pathLeft);
  const leavePath = useSession((session) => session.leavePath);
  if (!show || !left.includes(show.id) || !nextStep(show, true)) return null;
  return (
    <Row>
      <Button onPress={() => leavePath(show.id, false)}>{WORDS.goFirstSteps}</Button>
    </Row>
  );
}

/** How much room there is, and whether the browser promised to keep what is here. */
function Room() {
  const room = useQuery(roomQuery).data;
  if (!room || room.quota === 0) return null;
  const left = room.quota - room.usage;
  const nearly = left < 300e6 || left < room.quota * 0.1;
  return (
    <Column gap={8} paddingVertical={8}>
      <View height={6} borderRadius={3} backgroundColor="$well" overflow="hidden" aria-hidden>
        <View
          height={6}
          width={`${Math.max(1, Math.round((100 * room.usage) / room.quota))}%`}
          backgroundColor={nearly ? '$warn' : '$quiet'}
        />
      </View>
      <Quiet>
        {WORDS.keptDeviceLeft(
          sizeText(room.usage),
          sizeText(left),
          room.persisted ? ' The browser keeps it for good.' : '',
        )}
      </Quiet>
      {nearly && (
        <Words color="$warn" role="alert">
          {WORDS.storageDeviceAlmost}
        </Words>
      )}
    </Column>
  );
}

const count = (n: number, what: string): string => `${n} ${what}${n === 1 ? '' : 's'}`;

function ago(ms: number): string {
  const minutes = Math.round((Date.now() - ms) / 60_000);
  if (minutes < 1) return 'just now';
  if (minutes < 60) return WORDS.minAgo(minutes);
  const date = new Date(ms);
  const today = date.toDateString() === new Date().toDateString();
  return today
    ? `today, ${date.toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })}`
    : date.toLocaleDateString([], { day: 'numeric', month: 'short', year: 'numeric' });
}
