// What can be done with a hit lane as a whole: record, patterns, the drums of the music, onto the grid, looser.

import { useState } from 'react';
import Circle from 'lucide-react-native/icons/circle';
import Square from 'lucide-react-native/icons/square';
import { DRUMS, type Drum } from '@hovlix/core/music';
import type { Kit } from '@hovlix/core/light';
import { humanised, PATTERNS, quantised, strokeBeats, type HitLane, type Note, type Song } from '@hovlix/core/song';
import { Chip } from '../../../ui/Chip';
import { usePalette } from '../../../ui/palette';
import { Button, ButtonText, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { Segments } from '../../../ui/Segments';
import { Slider } from '../../../ui/Slider';
import { patternStrokes, useFill } from '../hits';
import { useStrokes } from '../tray/HitFills';
import { gridLength, type Grid, type Window } from './grid';
import { HeardPicture } from './HeardPicture';
import type { Pad } from './roll';
import { useRecording, type RecordMode } from './use-recording';
import { HEARD_NAMES, PATTERN_NAMES, WORDS } from './words';

type Props = {
  readonly song: Song;
  readonly lane: HitLane;
  readonly grid: Grid;
  readonly window: Window;
  readonly gutter: number;
  readonly kit: Kit | undefined;
  readonly pad: Pad;
  /** The notes that show, and the beats of their bars. */
  readonly notes: readonly Note[];
  readonly from: number;
  readonly to: number;
  readonly onPut: (notes: readonly Note[]) => void;
};

type Tool = 'pattern' | 'heard' | 'quantise' | 'humanise' | 'record';
const TOOLS: readonly { readonly tool: Tool; readonly name: string }[] = [
  { tool: 'pattern', name: 'Pattern' },
  { tool: 'heard', name: WORDS.fromTheMusic },
  { tool: 'quantise', name: 'Quantise' },
  { tool: 'humanise', name: 'Humanise' },
];

export function HitTools(props: Props) {
  const { song, lane, window, grid } = props;
  const palette = usePalette();
  const [open, setOpen] = useState<Tool | null>(null);
  const recording = useRecording(song, lane, window.first);
  if (recording.recorded !== null)
    return (
      <Row
        gap={12}
        padding={12}
        justifyContent="space-between"
        backgroundColor="$raised"
        borderTopWidth={1}
        borderColor="$line"
      >
        <Column flexShrink={1}>
          <Words fontWeight="600">
            {WORDS.recording(recording.recorded, recording.recorded === 1 ? 'note' : 'notes')}
          </Words>
          <Quiet>{WORDS.oneBarCounts}</Quiet>
        </Column>
        <Button kind="primary" onPress={recording.stop}>
          <Square size={16} color={palette.onDoing} fill={palette.onDoing} aria-hidden />
          <ButtonText kind="primary">{WORDS.stopRecording}</ButtonText>
        </Button>
      </Row>
    );
  return (
    <Column gap={8} paddingVertical={8} backgroundColor="$raised" borderTopWidth={1} borderColor="$line" flexShrink={0}>
      <ScrollArea sideways>
        <Row gap={6} paddingHorizontal={12} width="max-content">
          <Chip
            small
            name={WORDS.record}
            on={open === 'record'}
            picture={<Circle size={14} color={palette.fault} fill={palette.fault} aria-hidden />}
            onPress={() => setOpen(open === 'record' ? null : 'record')}
          />
          {TOOLS.map(({ tool, name }) => (
            <Chip
              key={tool}
              small
              name={name}
              on={open === tool}
              onPress={() => setOpen(open === tool ? null : tool)}
            />
          ))}
        </Row>
      </ScrollArea>
      {open === null && <Quiet paddingHorizontal={12}>{WORDS.tapRowAdd}</Quiet>}
      {open === 'record' && <Recording onStart={recording.start} />}
      {open === 'pattern' && <Patterns {...props} />}
      {open === 'heard' && <Heard {...props} />}
      {open === 'quantise' && <Quantise {...props} step={gridLength(song, grid, window.first)} />}
      {open === 'humanise' && <Humanise {...props} />}
    </Column>
  );
}

function Recording({ onStart }: { readonly onStart: (mode: RecordMode) => void }) {
  const [mode, setMode] = useState<RecordMode>('add');
  return (
    <Row gap={8} paddingHorizontal={12} flexWrap="wrap" justifyContent="space-between">
      <Segments
        label={WORDS.notesThere}
        value={mode}
        choices={[
          { value: 'add', name: WORDS.overdub },
          { value: 'replace', name: WORDS.replace },
        ]}
        onChoose={setMode}
      />
      <Button kind="primary" onPress={() => onStart(mode)}>
        {WORDS.startRecording}
      </Button>
    </Row>
  );
}

function Patterns(props: Props) {
  const { song, lane, window, pad, from, to } = props;
  const fill = useFill(song, lane, pad, from, to, '');
  const last = window.first + window.count - 1;
  return (
    <Column gap={6} paddingHorizontal={12}>
      <Quiet>{WORDS.barsAbove(pad.name)}</Quiet>
      <Row gap={6} flexWrap="wrap">
        {PATTERNS.map((pattern) => (
          <Button key={pattern} onPress={() => fill(patternStrokes(song, pattern, window.first, last))}>
            {PATTERN_NAMES[pattern]}
          </Button>
        ))}
      </Row>
    </Column>
  );
}

function Heard(props: Props) {
  const fill = useFill(props.song, props.lane, props.pad, props.from, props.to, '');
  const strokes = useStrokes(props.song);
  const [drum, setDrum] = useState<Drum>('kick');
  const [threshold, setThreshold] = useState(0.3);
  if (!strokes) return <Quiet paddingHorizontal={12}>{props.song.music ? WORDS.drumsSongNot : WORDS.songHasNo}</Quiet>;
  const { song, window, pad } = props;
  const found = strokeBeats(song, strokes[drum], threshold).filter(({ at }) => at >= props.from && at < props.to);
  return (
    <Column gap={8}>
      <Row gap={8} flexWrap="wrap" justifyContent="space-between" paddingHorizontal={12}>
        <Segments
          label={WORDS.drum}
          value={drum}
          choices={DRUMS.map((value) => ({ value, name: HEARD_NAMES[value] }))}
          onChoose={setDrum}
        />
        <Button
          kind="primary"
          disabled={found.length === 0}
          onPress={() => fill(strokeBeats(song, strokes[drum], threshold))}
        >
          {WORDS.placeOn(found.length, pad.name)}
        </Button>
      </Row>
      <HeardPicture window={window} strokes={strokes[drum]} threshold={threshold} gutter={props.gutter} />
      <Column paddingHorizontal={12}>
        <Slider
          label={WORDS.threshold}
          value={threshold * 100}
          low={0}
          high={100}
          step={5}
          unit="%"
          onChange={(value) => setThreshold(value / 100)}
        />
      </Column>
    </Column>
  );
}

function Quantise({ notes, step, onPut }: Props & { readonly step: number }) {
  const [strength, setStrength] = useState(1);
  const [swing, setSwing] = useState(0);
  return (
    <Column gap={4} paddingHorizontal={12}>
      <Slider
        label={WORDS.strength}
        value={strength * 100}
        low={0}
        high={100}
        step={5}
        unit="%"
        onChange={(value) => setStrength(value / 100)}
      />
      <Slider
        label={WORDS.swing}
        value={swing * 100}
        low={0}
        high={50}
        step={1}
        unit="%"
        onChange={(value) => setSwing(value / 100)}
      />
      <Row>
        <Button
          kind="primary"
          disabled={notes.length === 0}
          onPress={() => onPut(quantised(notes, step, strength, swing))}
        >
          {WORDS.quantise(notes.length, notes.length === 1 ? 'note' : 'notes')}
        </Button>
      </Row>
    </Column>
  );
}

function Humanise({ notes, onPut }: Props) {
  const [amount, setAmount] = useState(0.02);
  return (
    <Column gap={4} paddingHorizontal={12}>
      <Slider
        label={WORDS.earlyOrLate}
        value={amount}
        low={0}
        high={0.2}
        step={0.01}
        digits={2}
        unit="beats"
        onChange={setAmount}
      />
      <Row>
        <Button
          kind="primary"
          disabled={notes.length === 0}
          onPress={() => onPut(humanised(notes, amount, () => [Math.random(), Math.random()]))}
        >
          {WORDS.humanise(notes.length, notes.length === 1 ? 'note' : 'notes')}
        </Button>
      </Row>
    </Column>
  );
}
