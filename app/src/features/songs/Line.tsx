// One line of a lead sheet: bar numbers, waveform, the light ribbon, clips, and the pin that moves over it.

import { memo, useEffect, useRef } from 'react';
import { View } from '@tamagui/core';
import { STRIPS } from '@hovlix/core/engine';
import { beatsOfBars, playingLanes, timeOfBar, type Clip, type Lane, type Song } from '@hovlix/core/song';
import { useHovlix, useShow, useStage, usePlays } from '../../host/hovlix';
import { usePalette } from '../../ui/palette';
import type { Palette } from '../../ui/tokens';
import { ClipHandles, type Part } from './ClipHandles';
import { LaneStrip } from './LaneStrip';
import { CLIPS_TOP, LINE_GAP, lineHeight, mainLane, otherLanes, ROW_HEIGHT, ROWS_TOP } from './lines';
import { barLabel, barsOfBeat, clipBoxes, ribbonTimes, tickColour, type BarRange } from './model';
import { sized } from './sized';

const WAVE_TOP = 16;
const WAVE = 20;
const RIBBON_TOP = 40;
/** Ribbon moments a bar: half-beat blinks are seen. */
const COLUMNS = 32;
const PEAKS_PER_SECOND = 100;

type Props = {
  readonly song: Song;
  readonly first: number;
  readonly count: number;
  readonly perLine: number;
  readonly peaks: Uint8Array | null;
  readonly range: BarRange | null;
  readonly onBar: (bar: number) => void;
  /** The clip that can be dragged, where it lies, and what is told of that. */
  readonly held: { readonly clip: Clip; readonly top: number } | null;
  readonly onDrag: (part: Part, bar: number, done: boolean) => void;
};

export const Line = memo(function Line({ song, first, count, perLine, peaks, range, onBar, held, onDrag }: Props) {
  const palette = usePalette();
  const bars = Array.from({ length: count }, (_, i) => first + i);
  const share = `${(count / perLine) * 100}%` as const;
  const paper = lineHeight(song) - LINE_GAP;
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
        <Waveform song={song} first={first} count={count} peaks={peaks} palette={palette} />
        <Ribbon song={song} first={first} count={count} />
      </View>
      <Clips song={song} first={first} count={count} perLine={perLine} palette={palette} held={held} />
      {bars.map((bar, i) => {
        const chosen = range !== null && bar >= range.first && bar <= range.last;
        return (
          <button
            key={bar}
            type="button"
            aria-label={`Bar ${barLabel(bar)}`}
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
      <div
        data-pin
        data-first={first}
        data-count={count}
        data-perline={perLine}
        style={{
          position: 'absolute',
          top: 0,
          bottom: 0,
          width: 2,
          marginLeft: -1,
          background: palette.doing,
          opacity: 0,
          pointerEvents: 'none',
        }}
      >
        <div
          style={{
            position: 'absolute',
            left: -4,
            top: -1,
            width: 10,
            height: 8,
            borderRadius: '3px 3px 5px 5px',
            background: palette.doing,
          }}
        />
      </div>
    </View>
  );
});

function Handles({ song, first, count, perLine, held, onDrag }: Pick<Props, 'song' | 'first' | 'count' | 'perLine' | 'onDrag'> & { readonly held: NonNullable<Props['held']> }) {
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
} // prettier-ignore

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

export function Waveform({
  song,
  first,
  count,
  peaks,
  palette,
}: Pick<Props, 'song' | 'first' | 'count' | 'peaks'> & { readonly palette: Palette }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const element = canvas.current;
    const context = element && sized(element);
    if (!element || !context || !peaks) return;
    const width = element.clientWidth;
    context.fillStyle = palette.faint;
    const barWidth = width / count;
    const loudest = peaks.reduce((most, peak) => Math.max(most, peak), 1);
    for (let i = 0; i < count; i++) {
      const from = timeOfBar(song, first + i);
      const length = timeOfBar(song, first + i + 1) - from;
      for (let x = 0; x < barWidth; x += 2.5) {
        const start = Math.floor((from + (length * x) / barWidth) * PEAKS_PER_SECOND);
        const end = Math.max(start + 1, Math.floor((from + (length * (x + 2.5)) / barWidth) * PEAKS_PER_SECOND));
        let most = 0;
        for (let k = Math.max(0, start); k < end && k < peaks.length; k++) most = Math.max(most, peaks[k]!);
        const tall = Math.max(1, (most / loudest) * WAVE);
        context.fillRect(i * barWidth + x, (WAVE - tall) / 2, 1.25, tall);
      }
    }
  }, [song, first, count, peaks, palette]);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      style={{ position: 'absolute', left: 0, top: WAVE_TOP, width: '100%', height: WAVE }}
    />
  );
}

/** A strip a role: what the rig will really show. Roles that give no light have none. */
export function Ribbon({ song, first, count }: Pick<Props, 'song' | 'first' | 'count'>) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { light } = useHovlix();
  const stage = useStage();
  const roles = useShow((show) => show.roles);
  const looks = usePlays();
  const casting = useShow((show) => show.rigs.find((rig) => rig.id === show.rig)?.casting);
  useEffect(() => {
    let wanted = true;
    const shining = new Set(stage.heads.filter((head) => head.kind !== 'hazer').map((head) => head.fixture));
    const shown = (roles ?? []).filter((role) =>
      casting?.some((cast) => cast.role === role.id && cast.fixtures.some((fixture) => shining.has(fixture))),
    );
    if (shown.length === 0) return;
    const times = ribbonTimes(song, first, count, COLUMNS);
    void light
      .ribbon(
        song.id,
        shown.map((role) => role.id),
        times,
      )
      .then((pixels) => {
        const element = canvas.current;
        const context = wanted && pixels && element ? sized(element) : null;
        if (!element || !context) return;
        const columns = times.length;
        const tall = element.clientHeight / shown.length;
        const strips = window.document.createElement('canvas');
        strips.width = columns;
        strips.height = shown.length * STRIPS;
        strips.getContext('2d')?.putImageData(new ImageData(pixels, columns, strips.height), 0, 0);
        context.imageSmoothingEnabled = false;
        shown.forEach((_, row) =>
          context.drawImage(
            strips,
            0,
            row * STRIPS,
            columns,
            STRIPS,
            0,
            row * tall,
            element.clientWidth,
            Math.max(2, tall - 1),
          ),
        );
      });
    return () => {
      wanted = false;
    };
  }, [light, stage, song, first, count, roles, looks, casting]);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      data-ribbon={first}
      style={{ position: 'absolute', left: 0, top: RIBBON_TOP, width: '100%', height: CLIPS_TOP - RIBBON_TOP - 3 }}
    />
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
      {otherLanes(song).map((lane, row) => (
        <div
          key={lane.id}
          style={{
            position: 'absolute',
            left: 0,
            right: 0,
            top: ROWS_TOP + row * ROW_HEIGHT,
            height: ROW_HEIGHT - 2,
            opacity: dimmed(lane),
            pointerEvents: 'none',
          }}
        >
          {lane.type === 'looks' ? (
            clipBoxes(song, lane, first, count, perLine).map(({ clip, left, width }) => (
              <div
                key={clip.id}
                title={nameOf(clip.look)}
                data-clip={nameOf(clip.look)}
                style={{
                  position: 'absolute',
                  left: `${left * 100}%`,
                  width: `max(${width * 100}% - 1px, 5px)`,
                  top: 1,
                  height: 8,
                  borderRadius: 4,
                  background: tickColour(looks.find((one) => one.id === clip.look)),
                }}
              />
            ))
          ) : (
            <LaneStrip song={song} lane={lane} first={first} count={count} share={count / perLine} palette={palette} />
          )}
        </div>
      ))}
    </>
  );
}
