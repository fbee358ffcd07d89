// The lanes of a song: in what order they count, which do nothing, and what each is set to.

import { useState } from 'react';
import { View } from '@tamagui/core';
import ChevronDown from 'lucide-react-native/icons/chevron-down';
import ChevronUp from 'lucide-react-native/icons/chevron-up';
import { drumKit } from '@hovlix/core/light';
import type { MidiMusic } from '@hovlix/core/midi';
import { wordsFor } from '@hovlix/core/problem';
import type { OneCommand } from '@hovlix/core/show';
import type { Lane, Song } from '@hovlix/core/song';
import { freshId } from '../../../host/fresh-id';
import { useHovlix, useShow } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { midiFormat, type MidiFormat } from '../../../host/files/formats';
import { saveFile } from '../../../host/files/save-file';
import { FileButton } from '../../../ui/FileButton';
import { Chip } from '../../../ui/Chip';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Quiet, Row, Words, Grid } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { SortableList } from '../../../ui/SortableList';
import { LaneForm } from './LaneForm';
import { MidiSheet } from './MidiSheet';
import { laneOf, TEMPLATES, type Template } from './model';
import { TYPE_NAMES, WORDS } from './words';

type Props = { readonly song: Song; readonly onClose: () => void };

type Brought = { readonly name: string; readonly music: MidiMusic; readonly format: MidiFormat };

async function saveAsMidi(song: Song): Promise<void> {
  const { writeSongAsMidi } = await midiFormat();
  saveFile(`${song.title}.mid`, writeSongAsMidi(song), 'audio/midi');
}

export function LanesSheet({ song, onClose }: Props) {
  const { document } = useHovlix();
  const show = useShow((one) => one);
  const say = useSession((session) => session.say);
  const [open, setOpen] = useState<Lane['id'] | null>(null);
  const [midi, setMidi] = useState<Brought | null>(null);
  if (!show) return null;
  const bring = async (file: File | undefined) => {
    if (!file) return;
    const format = await midiFormat();
    const read = format.readMidi(new Uint8Array(await file.arrayBuffer()), file.name, navigator.language);
    if (!read.ok) return say(wordsFor(read.problem), { tone: 'bad' });
    setMidi({ name: file.name, music: read.value, format });
  };
  if (midi) return <MidiSheet song={song} show={show} {...midi} onClose={() => setMidi(null)} />;
  const lanes = [...song.lanes].reverse();
  const order = (items: readonly Lane[]) => {
    const moved = [...items].reverse();
    const before = song.lanes;
    // Of all that changed places, the one that was dragged is the one without which the rest is as it was.
    const dragged = moved.find(
      ({ id }) =>
        moved
          .filter((one) => one.id !== id)
          .map((one) => one.id)
          .join() ===
        before
          .filter((one) => one.id !== id)
          .map((one) => one.id)
          .join(),
    );
    if (!dragged) return;
    const next = moved[moved.indexOf(dragged) + 1];
    document.make({ type: 'move-lane', song: song.id, lane: dragged.id, before: next?.id ?? null });
  };
  const add = (template: Template) => {
    const kit = show.kits[0] ?? drumKit('Drums', show.roles[0]?.id, freshId);
    const added = laneOf(template, song, show, kit);
    if (!added) return say(WORDS.hitsNeedLamps, { tone: 'bad' });
    const fresh: OneCommand[] = added.type === 'hits' && show.kits.length === 0 ? [{ type: 'store-kit', kit }] : [];
    document.together([...fresh, { type: 'add-lane', song: song.id, added }]);
    setOpen(added.id);
  };
  return (
    <Sheet title={WORDS.lanes} onClose={onClose}>
      <Column gap={4}>
        <Quiet>{WORDS.laneTopCounts}</Quiet>
        <SortableList opens items={lanes} nameOf={(lane) => lane.name} onOrder={order}>
          {(lane) => (
            <Column>
              <LaneRow
                song={song}
                lane={lane}
                open={open === lane.id}
                onOpen={() => setOpen(open === lane.id ? null : lane.id)}
              />
              {open === lane.id && <LaneForm song={song} lane={lane} show={show} onGone={() => setOpen(null)} />}
            </Column>
          )}
        </SortableList>
      </Column>
      <Column gap={8} role="group" aria-label={WORDS.addALane}>
        <Words fontWeight="600">{WORDS.addALane}</Words>
        <Grid gridTemplateColumns="repeat(2, minmax(0, 1fr))" gap={8}>
          {TEMPLATES.map(({ value, name, does }) => (
            <View
              key={value}
              render="button"
              aria-label={WORDS.add(name)}
              onPress={() => add(value)}
              padding={12}
              gap={2}
              borderRadius={14}
              borderWidth={1}
              borderColor="$line"
              backgroundColor="$sunken"
              cursor="pointer"
              alignItems="flex-start"
              pressStyle={{ opacity: 0.75 }}
            >
              <Words fontWeight="600" textAlign="left">
                {name}
              </Words>
              <Quiet textAlign="left">{does}</Quiet>
            </View>
          ))}
        </Grid>
      </Column>
      <Column gap={8}>
        <Words fontWeight="600">{WORDS.midiFile}</Words>
        <Row gap={8} flexWrap="wrap">
          <FileButton
            label={WORDS.chooseMidiFile}
            accept=".mid,.midi,.kar,audio/midi"
            onFiles={([file]) => void bring(file)}
          >
            {WORDS.importMidi}
          </FileButton>
          <Button onPress={() => void saveAsMidi(song)}>{WORDS.exportMidi}</Button>
        </Row>
        <Quiet>{WORDS.tempoMeterSections}</Quiet>
      </Column>
    </Sheet>
  );
}

function LaneRow({
  song,
  lane,
  open,
  onOpen,
}: {
  readonly song: Song;
  readonly lane: Lane;
  readonly open: boolean;
  readonly onOpen: () => void;
}) {
  const { document } = useHovlix();
  const palette = usePalette();
  const set = (more: { readonly muted?: boolean; readonly solo?: boolean }) =>
    document.make({ type: 'set-lane', song: song.id, lane: lane.id, ...more });
  return (
    <Row gap={6} justifyContent="space-between" paddingVertical={4}>
      <View
        render="button"
        aria-label={WORDS.settingsOf(lane.name)}
        aria-expanded={open}
        onPress={onOpen}
        flex={1}
        minWidth={0}
        minHeight={44}
        flexDirection="row"
        alignItems="center"
        gap={6}
        padding={0}
        borderWidth={0}
        backgroundColor="transparent"
        cursor="pointer"
      >
        <Column minWidth={0} flexShrink={1} alignItems="flex-start">
          <Words fontWeight="600" numberOfLines={1} textAlign="left">
            {lane.name}
          </Words>
          <Quiet>{TYPE_NAMES[lane.type]}</Quiet>
        </Column>
        {open ? (
          <ChevronUp size={18} color={palette.quiet} aria-hidden />
        ) : (
          <ChevronDown size={18} color={palette.quiet} aria-hidden />
        )}
      </View>
      <Chip
        small
        name={WORDS.mute}
        label={WORDS.muteNamed(lane.name)}
        on={lane.muted === true}
        onPress={() => set({ muted: !lane.muted })}
      />
      <Chip
        small
        name={WORDS.solo}
        label={WORDS.soloNamed(lane.name)}
        on={lane.solo === true}
        onPress={() => set({ solo: !lane.solo })}
      />
    </Row>
  );
}
