// What to do with the chosen bars: lay a look, fill them with hits, draw a curve, clear them, name a section, play from here.

import { useState } from 'react';
import { Text, useMedia, View } from '@tamagui/core';
import Play from 'lucide-react-native/icons/play';
import X from 'lucide-react-native/icons/x';
import { beatsOfBars, clipAt, type Lane, type Song } from '@hovlix/core/song';
import { id, type Id } from '@hovlix/core/units';
import { freshId } from '../../../host/fresh-id';
import { useHovlix, usePlays } from '../../../host/hovlix';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Row, Grid } from '../../../ui/pieces';
import { ScrollArea, Scroller } from '../../../ui/ScrollArea';
import { Segments } from '../../../ui/Segments';
import { ActionList } from '../actions/ActionList';
import { ClipChange } from '../ClipChange';
import { ClipFades } from '../ClipFades';
import { CopyRow } from './CopyRow';
import { CurveShapes } from './CurveShapes';
import { HitFills } from './HitFills';
import { LookCards } from './LookCards';
import { LoopButton, playFrom } from '../Rehearsal';
import { MarkerForm } from './MarkerForm';
import { MoveRow } from './MoveRow';
import { SectionForm } from './SectionForm';
import { rangeText, type BarRange } from '../model';
import { WORDS } from './words';

type Props = {
  readonly song: Song;
  /** The lane that is worked on. */
  readonly lane: Lane;
  readonly range: BarRange;
  readonly wide: boolean;
  readonly onLane: (lane: Lane['id']) => void;
  /** The chosen bars are enlarged. */
  readonly onCloseUp: () => void;
  /** Told how much of the sheet it covers. */
  readonly onHeight?: (height: number) => void;
  readonly onRange: (range: BarRange) => void;
  readonly onClose: () => void;
};

/** What is worked on beside the looks. */
type Open = 'naming' | 'marker' | 'move' | 'fades' | 'clip';

export function LookTray({ song, lane, range, wide, onLane, onCloseUp, onHeight, onRange, onClose }: Props) {
  const app = useHovlix();
  const palette = usePalette();
  const looks = usePlays();
  const [asked, setOpen] = useState<Open | null>(null);
  const { short } = useMedia();
  const { from, to } = beatsOfBars(song, range.first, range.last);
  const here = lane.type === 'looks' ? clipAt(lane.clips, from) : undefined;
  // What is about a clip is closed where none lies.
  const open = !here && (asked === 'clip' || asked === 'fades') ? null : asked;
  const toggle = (one: Open) => setOpen(open === one ? null : one);
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
        label={WORDS.lane}
        value={lane.id}
        choices={song.lanes.map((one) => ({ value: one.id, name: one.name }))}
        onChoose={onLane}
      />
      <Button onPress={onCloseUp}>{WORDS.closeUp}</Button>
      <Button onPress={() => app.document.make({ type: 'clear-bars', song: song.id, lane: lane.id, from, to })}>
        {WORDS.clear}
      </Button>
      {short && !wide && here && (
        <Button onPress={() => toggle('fades')} pressed={open === 'fades'}>
          {WORDS.fades}
        </Button>
      )}
      {here && !wide && (
        <Button onPress={() => toggle('clip')} pressed={open === 'clip'}>
          {WORDS.speedAndColours}
        </Button>
      )}
      <Button onPress={() => toggle('naming')} pressed={open === 'naming'}>
        {WORDS.section}
      </Button>
      <Button onPress={() => toggle('marker')} pressed={open === 'marker'}>
        {WORDS.marker}
      </Button>
      <Button onPress={() => toggle('move')} pressed={open === 'move'}>
        {WORDS.move}
      </Button>
      <LoopButton song={song} range={range} />
      <CopyRow song={song} range={range} />
    </>
  );
  const body =
    lane.type === 'hits' ? (
      <HitFills song={song} lane={lane} range={range} />
    ) : lane.type === 'curve' ? (
      <CurveShapes song={song} lane={lane} range={range} />
    ) : lane.type === 'actions' ? (
      <Scroller maxHeight={wide ? undefined : '34vh'}>
        <ActionList song={song} lane={lane} from={from} to={to} />
      </Scroller>
    ) : null;
  const forms = (
    <>
      {open === 'naming' && (
        <SectionForm key={range.first} song={song} bar={range.first} onRange={onRange} onDone={() => setOpen(null)} />
      )}
      {open === 'marker' && <MarkerForm song={song} from={from} to={to} onDone={() => setOpen(null)} />}
      {open === 'move' && <MoveRow key={`${range.first} ${range.last}`} song={song} lane={lane} range={range} />}
      {open === 'clip' && here && !wide && <ClipChange song={song} lane={lane.id} clips={[here]} />}
    </>
  );
  return (
    <Column
      role="region"
      aria-label={WORDS.looksChosenBars}
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
        <Button label={WORDS.playFromHere} onPress={() => playFrom(app.player, song, range.first)}>
          <Play size={18} color={palette.text} fill={palette.text} aria-hidden />
        </Button>
        <Button label={WORDS.clearSelection} kind="quiet" onPress={onClose}>
          <X size={20} color={palette.text} aria-hidden />
        </Button>
      </Row>
      {wide ? (
        <View flex={1} minHeight={0}>
          <ScrollArea>
            <Column gap={10}>
              <Row paddingHorizontal={16} gap={8} flexWrap="wrap">
                {tools}
              </Row>
              {forms}
              {body}
              {lane.type === 'looks' && (
                <>
                  {here && <ClipFades song={song} lane={lane.id} clips={[here]} looks={looks} />}
                  {here && <ClipChange song={song} lane={lane.id} clips={[here]} />}
                  <Grid gridTemplateColumns="1fr 1fr" gap={10} paddingHorizontal={16} paddingTop={4} paddingBottom={16}>
                    <LookCards looks={looks} chosen={here} onLay={lay} />
                  </Grid>
                </>
              )}
            </Column>
          </ScrollArea>
        </View>
      ) : (
        // One thing at a time, so that the bars stay in sight.
        <>
          <ScrollArea sideways>
            <Row gap={8} paddingHorizontal={16} width="max-content">
              {tools}
            </Row>
          </ScrollArea>
          {forms}
          {open === null && body}
          {lane.type === 'looks' && (short ? !open : open === null || open === 'fades') && (
            <ScrollArea sideways>
              <Grid
                gap={10}
                paddingHorizontal={16}
                paddingBottom={4}
                style={{ gridAutoFlow: 'column', gridAutoColumns: 124 }}
              >
                <LookCards looks={looks} chosen={here} onLay={lay} />
              </Grid>
            </ScrollArea>
          )}
          {here && (short ? open === 'fades' : open === null || open === 'fades') && (
            <ClipFades song={song} lane={lane.id} clips={[here]} looks={looks} />
          )}
        </>
      )}
    </Column>
  );
}
