// One line of a lead sheet: bar numbers, waveform, the light ribbon, clips, and the pin that moves over it.

import { memo, useMemo } from 'react';
import { View } from '@tamagui/core';
import { beatsOfBars, playingLanes, type Clip, type Lane, type Song } from '@hovlix/core/song';
import { usePlays } from '../../host/hovlix';
import { usePalette } from '../../ui/palette';
import type { Palette } from '../../ui/tokens';
import { BarsCanvas, WAVE, WAVE_TOP, type Row } from './BarsCanvas';
import { ClipHandles, type Part } from './ClipHandles';
import { CLIPS_TOP, LINE_GAP, lineHeight, mainLane, otherLanes, ROW_HEIGHT, ROWS_TOP } from './lines';
import { Pin } from './Pin';
import { SectionHead } from './SectionHead';
import { barLabel, barsOfBeat, clipBoxes, tickColour, type BarRange } from './model';
import { WORDS } from './words';

type Props = {
  readonly song: Song;
  readonly first: number;
  readonly count: number;
  readonly perLine: number;
  /** Of a whole line, in pixels. */
  readonly width: number;
  readonly peaks: Uint8Array | null;
  readonly range: BarRange | null;
  readonly onBar: (bar: number) => void;
  /** The clip that can be dragged, where it lies, and what is told of that. */
  readonly held: { readonly clip: Clip; readonly top: number } | null;
  readonly onDrag: (part: Part, bar: number | undefined, done: boolean) => void;
};

type HeadedProps = Props & {
  /** The section that begins here, by its place in the song. */
  readonly head: number | null;
  readonly onSection: (index: number) => void;
};

/** A line, under the head of its section where that begins. Scrolling draws none again that is there. */
export const HeadedLine = memo(function HeadedLine({ head, onSection, ...line }: HeadedProps) {
  return (
    <View>
      {head !== null && line.song.sections[head] && (
        <SectionHead song={line.song} index={head} onChoose={() => onSection(head)} />
      )}
      <Line {...line} />
    </View>
  );
});

const Line = memo(function Line({ song, first, count, perLine, width, peaks, range, onBar, held, onDrag }: Props) {
  const palette = usePalette();
  const bars = Array.from({ length: count }, (_, i) => first + i);
  const share = `${(count / perLine) * 100}%` as const;
  const paper = lineHeight(song) - LINE_GAP;
  const rows = useMemo(() => rowsOf(song), [song]);
  return (
    <View height={paper} marginBottom={LINE_GAP} position="relative">
      <View
        position="absolute"
        left={0}
        top={0}
        bottom={0}
        width={share}
        backgroundColor="$sunken"
        borderRadius={8}
        overflow="hidden"
      >
        <BarsCanvas
          song={song}
          first={first}
          count={count}
          peaks={peaks}
          width={(width * count) / perLine}
          height={paper}
          rows={rows}
        />
      </View>
      <Clips song={song} first={first} count={count} perLine={perLine} palette={palette} held={held} />
      {bars.map((bar, i) => {
        const chosen = range !== null && bar >= range.first && bar <= range.last;
        return (
          <button
            key={bar}
            type="button"
            aria-label={WORDS.bar(barLabel(bar))}
            aria-pressed={chosen}
            data-bar={bar}
            onClick={() => onBar(bar)}
            style={{
              position: 'absolute',
              left: `${(i / perLine) * 100}%`,
              width: `${100 / perLine}%`,
              top: 0,
              height: paper,
              padding: '2px 0 0 5px',
              border: 0,
              borderLeft: i === 0 ? '1px solid transparent' : `1px solid ${palette.line}`,
              background: chosen ? 'rgba(255,122,89,.14)' : 'transparent',
              boxShadow: chosen ? `inset 0 2px 0 ${palette.doing}, inset 0 -2px 0 ${palette.doing}` : 'none',
              textAlign: 'left',
              cursor: 'pointer',
              color: chosen ? palette.text : palette.quiet,
              font: '500 12px/14px "Spline Sans Mono"',
              display: 'flex',
              alignItems: 'flex-start',
            }}
          >
            {barLabel(bar)}
          </button>
        );
      })}
      <Markers song={song} first={first} count={count} perLine={perLine} palette={palette} />
      {held && <Handles song={song} first={first} count={count} perLine={perLine} held={held} onDrag={onDrag} />}
      <Pin first={first} count={count} barWidth={width / perLine} marked />
    </View>
  );
});

function Handles({
  song,
  first,
  count,
  perLine,
  held,
  onDrag,
}: Pick<Props, 'song' | 'first' | 'count' | 'perLine' | 'onDrag'> & { readonly held: NonNullable<Props['held']> }) {
  const { clip, top } = held;
  const [begins, ends] = [barsOfBeat(song, clip.from) - first, barsOfBeat(song, clip.to) - first];
  return (
    <ClipHandles
      head={begins >= -1e-6 && begins < count ? begins / perLine : undefined}
      end={ends > 1e-6 && ends <= count + 1e-6 ? ends / perLine : undefined}
      top={top}
      onDrag={onDrag}
    />
  );
}

/** Names at their beats, over the waveform. */
function Markers({
  song,
  first,
  count,
  perLine,
  palette,
}: Pick<Props, 'song' | 'first' | 'count' | 'perLine'> & { readonly palette: Palette }) {
  const { from, to } = beatsOfBars(song, first, first + count - 1);
  return (song.markers ?? [])
    .filter(({ at }) => at >= from && at < to)
    .map(({ id, at, name }) => (
      <div
        key={id}
        data-marker={name}
        style={{
          position: 'absolute',
          left: `${((barsOfBeat(song, at) - first) / perLine) * 100}%`,
          top: WAVE_TOP,
          maxWidth: `${100 / perLine}%`,
          height: WAVE,
          padding: '0 6px 0 5px',
          borderLeft: `2px solid ${palette.live}`,
          borderRadius: '0 6px 6px 0',
          background: palette.raised,
          color: palette.text,
          font: `600 12px/${WAVE}px Figtree`,
          whiteSpace: 'nowrap',
          overflow: 'hidden',
          textOverflow: 'ellipsis',
          boxSizing: 'border-box',
          pointerEvents: 'none',
        }}
      >
        {name}
      </div>
    ));
}

/** The lanes of a line that are painted, and where. */
function rowsOf(song: Song): readonly Row[] {
  const playing = playingLanes(song.lanes);
  return otherLanes(song).flatMap((lane, row): readonly Row[] =>
    lane.type === 'looks'
      ? []
      : [{ lane, top: ROWS_TOP + row * ROW_HEIGHT, height: ROW_HEIGHT - 2, idle: !playing.includes(lane) }],
  );
}

function Clips({
  song,
  first,
  count,
  perLine,
  palette,
  held,
}: Pick<Props, 'song' | 'first' | 'count' | 'perLine' | 'held'> & { readonly palette: Palette }) {
  const looks = usePlays();
  const playing = playingLanes(song.lanes);
  const main = mainLane(song);
  const nameOf = (look: string | null) =>
    look === null ? 'Dark' : (looks.find((one) => one.id === look)?.name ?? 'Gone');
  const dimmed = (lane: Lane) => (playing.includes(lane) ? 1 : 0.35);
  return (
    <>
      {main &&
        clipBoxes(song, main, first, count, perLine).map(({ clip, left, width, begins }) => (
          <div
            key={clip.id}
            data-clip={nameOf(clip.look)}
            style={{
              position: 'absolute',
              left: `calc(${left * 100}% + 1px)`,
              width: `calc(${width * 100}% - 2px)`,
              top: CLIPS_TOP,
              height: 18,
              borderRadius: 5,
              overflow: 'hidden',
              background: palette.well,
              color: palette.text,
              font: '600 12px/18px Figtree',
              whiteSpace: 'nowrap',
              textOverflow: 'ellipsis',
              // Room for what it is dragged by.
              paddingLeft: held?.clip.id === clip.id && begins ? 18 : 9,
              boxSizing: 'border-box',
              opacity: dimmed(main),
            }}
          >
            <span
              style={{
                position: 'absolute',
                left: 0,
                top: 0,
                bottom: 0,
                width: 4,
                opacity: begins ? 1 : 0.4,
                background: tickColour(looks.find((one) => one.id === clip.look)),
              }}
            />
            {nameOf(clip.look)}
          </div>
        ))}
      {otherLanes(song).map((lane, row) =>
        lane.type !== 'looks'
          ? null
          : clipBoxes(song, lane, first, count, perLine).map(({ clip, left, width }) => (
              <div
                key={clip.id}
                title={nameOf(clip.look)}
                data-clip={nameOf(clip.look)}
                style={{
                  position: 'absolute',
                  left: `${left * 100}%`,
                  width: `max(${width * 100}% - 1px, 5px)`,
                  top: ROWS_TOP + row * ROW_HEIGHT + 1,
                  height: 8,
                  borderRadius: 4,
                  background: tickColour(looks.find((one) => one.id === clip.look)),
                  opacity: dimmed(lane),
                  pointerEvents: 'none',
                }}
              />
            )),
      )}
    </>
  );
}
