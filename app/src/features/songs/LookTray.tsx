// What to do with the chosen bars: lay a look, make them dark, clear them, name a section, play from here.

import { useState } from 'react';
import { Text, useMedia, View } from '@tamagui/core';
import Play from 'lucide-react-native/icons/play';
import X from 'lucide-react-native/icons/x';
import type { Chase, Look } from '@hovlix/core/light';
import { beatsOfBars, clipAt, timeOfBar, type Clip, type Song } from '@hovlix/core/song';
import { id, type Id } from '@hovlix/core/units';
import { freshId } from '../../host/fresh-id';
import { useHovlix, usePlays } from '../../host/hovlix';
import { usePalette } from '../../ui/palette';
import { Button, ButtonText, Column, Figures, Quiet, Row, Words } from '../../ui/pieces';
import { ScrollArea } from '../../ui/ScrollArea';
import { Segments } from '../../ui/Segments';
import { LookPicture } from '../../ui/LookPicture';
import { CopyRow } from './CopyRow';
import { LoopButton } from './Rehearsal';
import { SectionForm } from './SectionForm';
import { rangeText, type BarRange } from './model';

type Props = {
  readonly song: Song;
  readonly range: BarRange;
  readonly wide: boolean;
  /** Told how much of the sheet it covers. */
  readonly onHeight?: (height: number) => void;
  readonly onClose: () => void;
};

export function LookTray({ song, range, wide, onHeight, onClose }: Props) {
  const app = useHovlix();
  const palette = usePalette();
  const looks = usePlays();
  const [laneId, setLane] = useState(song.lanes[0]!.id);
  const [open, setOpen] = useState<'naming' | 'fades' | null>(null);
  const { short } = useMedia();
  const lane = song.lanes.find((one) => one.id === laneId) ?? song.lanes[0]!;
  const { from, to } = beatsOfBars(song, range.first, range.last);
  const here = clipAt(lane.clips, from);
  const lay = (look: Id<'Look'> | null) =>
    app.document.make({
      type: 'lay-clip',
      song: song.id,
      lane: lane.id,
      clip: { id: id<'Clip'>(freshId()), look, from, to },
    });
  const tools = (
    <>
      <Segments
        label="Lane"
        value={lane.id}
        choices={song.lanes.map((one) => ({ value: one.id, name: one.name }))}
        onChoose={setLane}
      />
      <Button onPress={() => app.document.make({ type: 'clear-bars', song: song.id, lane: lane.id, from, to })}>
        Clear
      </Button>
      {short && !wide && here && (
        <Button onPress={() => setOpen(open === 'fades' ? null : 'fades')} pressed={open === 'fades'}>
          Fades
        </Button>
      )}
      <Button onPress={() => setOpen(open === 'naming' ? null : 'naming')} pressed={open === 'naming'}>
        Section
      </Button>
      <LoopButton song={song} range={range} />
      <CopyRow song={song} range={range} />
    </>
  );
  return (
    <Column
      role="region"
      aria-label="Looks for the chosen bars"
      backgroundColor="$raised"
      gap={short && !wide ? 6 : 10}
      paddingVertical={short && !wide ? 6 : 12}
      onLayout={({ nativeEvent }) => onHeight?.(nativeEvent.layout.height)}
      {...(wide
        ? { height: '100%' }
        : {
            position: 'absolute',
            left: 0,
            right: 0,
            bottom: 0,
            borderTopLeftRadius: 18,
            borderTopRightRadius: 18,
            borderTopWidth: 1,
            borderColor: '$line',
            boxShadow: '0 -10px 30px rgba(0,0,0,.35)',
            zIndex: 5,
          })}
    >
      <Row paddingLeft={16} paddingRight={8} gap={8}>
        <Text
          flex={1}
          fontFamily="$heading"
          fontWeight="650"
          fontSize={18}
          color="$text"
          numberOfLines={1}
          testID="range"
        >
          {rangeText(range)}
        </Text>
        <Button label="Play from here" onPress={() => void app.player.play(song, timeOfBar(song, range.first))}>
          <Play size={18} color={palette.text} fill={palette.text} aria-hidden />
        </Button>
        <Button label="Clear selection" kind="quiet" onPress={onClose}>
          <X size={20} color={palette.text} aria-hidden />
        </Button>
      </Row>
      {wide ? (
        <Row paddingHorizontal={16} gap={8} flexWrap="wrap">
          {tools}
        </Row>
      ) : (
        <ScrollArea sideways>
          <div style={{ display: 'flex', gap: 8, padding: '0 16px', width: 'max-content' }}>{tools}</div>
        </ScrollArea>
      )}
      {open === 'naming' && <SectionForm song={song} bar={range.first} onDone={() => setOpen(null)} />}
      {wide ? (
        <View flex={1} minHeight={0}>
          <ScrollArea>
            {here && <ClipFades song={song} lane={lane.id} clip={here} looks={looks} />}
            <div style={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 10, padding: '4px 16px 16px' }}>
              <LookCards looks={looks} chosen={here} onLay={lay} />
            </div>
          </ScrollArea>
        </View>
      ) : (
        // On a short screen one thing at a time, so that the bars stay in sight.
        <>
          {!(short && open) && (
            <ScrollArea sideways>
              <div
                style={{
                  display: 'grid',
                  gridAutoFlow: 'column',
                  gridAutoColumns: 124,
                  gap: 10,
                  padding: '0 16px 4px',
                }}
              >
                <LookCards looks={looks} chosen={here} onLay={lay} />
              </div>
            </ScrollArea>
          )}
          {here && (short ? open === 'fades' : true) && (
            <ClipFades song={song} lane={lane.id} clip={here} looks={looks} />
          )}
        </>
      )}
    </Column>
  );
}

function LookCards({
  looks,
  chosen,
  onLay,
}: {
  readonly looks: readonly (Look | Chase)[];
  readonly chosen: Clip | undefined;
  readonly onLay: (look: Id<'Look'> | null) => void;
}) {
  return (
    <>
      {looks.map((look) => (
        <Card key={look.id} name={look.name} on={chosen?.look === look.id} onPress={() => onLay(look.id)}>
          <LookPicture look={look.id} height={62} />
        </Card>
      ))}
      <Card name="Dark" on={chosen?.look === null} onPress={() => onLay(null)}>
        <View height={62} backgroundColor="#000" />
      </Card>
    </>
  );
}

function Card({
  name,
  on,
  onPress,
  children,
}: {
  readonly name: string;
  readonly on: boolean;
  readonly onPress: () => void;
  readonly children: React.ReactNode;
}) {
  return (
    <View
      render="button"
      aria-label={`Lay ${name}`}
      aria-pressed={on}
      onPress={onPress}
      padding={0}
      borderRadius={12}
      overflow="hidden"
      borderWidth={2}
      borderColor={on ? '$doing' : '$line'}
      backgroundColor="$sunken"
      cursor="pointer"
      pressStyle={{ opacity: 0.75 }}
      minWidth={0}
    >
      {children}
      <Words
        fontSize={13}
        fontWeight="600"
        paddingHorizontal={8}
        paddingVertical={7}
        numberOfLines={1}
        textAlign="left"
        width="100%"
      >
        {name}
      </Words>
    </View>
  );
}

const FADES = [0, 0.25, 0.5, 1, 2, 4, 8, 16];

/** How the clip under the chosen bars comes and goes; in beats. */
function ClipFades({
  song,
  lane,
  clip,
  looks,
}: {
  readonly song: Song;
  readonly lane: Id<'Lane'>;
  readonly clip: Clip;
  readonly looks: readonly (Look | Chase)[];
}) {
  const app = useHovlix();
  const look = looks.find((one) => one.id === clip.look);
  const change = (which: 'fadeIn' | 'fadeOut', value: number) =>
    app.document.make({ type: 'fade-clip', song: song.id, lane, clip: clip.id, [which]: value });
  return (
    <Column paddingHorizontal={16} gap={4}>
      <Quiet numberOfLines={1}>{look?.name ?? 'Dark'} comes and goes in</Quiet>
      <Row gap={12} flexWrap="wrap">
        <Stepper
          name="Fade in"
          value={clip.fadeIn ?? look?.fadeIn ?? 0}
          onChange={(value) => change('fadeIn', value)}
        />
        <Stepper
          name="Fade out"
          value={clip.fadeOut ?? look?.fadeOut ?? 0}
          onChange={(value) => change('fadeOut', value)}
        />
      </Row>
    </Column>
  );
}

function Stepper({
  name,
  value,
  onChange,
}: {
  readonly name: string;
  readonly value: number;
  readonly onChange: (value: number) => void;
}) {
  const below = FADES.findLast((step) => step < value - 1e-9);
  const above = FADES.find((step) => step > value + 1e-9);
  return (
    <Row
      flexGrow={1}
      flexBasis={156}
      justifyContent="space-between"
      backgroundColor="$well"
      borderRadius={22}
      role="group"
      aria-label={name}
    >
      <Button
        label={`${name} shorter`}
        kind="quiet"
        disabled={below === undefined}
        onPress={() => below !== undefined && onChange(below)}
      >
        <ButtonText>−</ButtonText>
      </Button>
      <Column alignItems="center">
        <Quiet fontSize={12} lineHeight={14}>
          {name}
        </Quiet>
        <Figures color="$text" lineHeight={16}>
          {value} {value === 1 ? 'beat' : 'beats'}
        </Figures>
      </Column>
      <Button
        label={`${name} longer`}
        kind="quiet"
        disabled={above === undefined}
        onPress={() => above !== undefined && onChange(above)}
      >
        <ButtonText>+</ButtonText>
      </Button>
    </Row>
  );
}
