// Looks in Close-up: drag a clip to move it, its ends to make it longer or shorter, all on the grid.

import { useRef, useState, type PointerEvent } from 'react';
import Trash from 'lucide-react-native/icons/trash';
import X from 'lucide-react-native/icons/x';
import { beatsOfBars, type Clip, type LookLane } from '@hovlix/core/song';
import { beatAt, timeAt } from '@hovlix/core/time';
import { beats, seconds } from '@hovlix/core/units';
import { useHovlix, usePlays } from '../../../host/hovlix';
import { Typed } from '../../../ui/form';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { ClipChange } from '../ClipChange';
import { ClipFades } from '../ClipFades';
import { preciseText, tickColour } from '../model';
import type { Editing } from './editing';
import { beatAtX, beatOfPlace, placeText, readPlace, readSeconds, secondsOfText, snapped, xOf } from './grid';
import { Pin } from '../Pin';
import { GridLines } from './Paper';

const HEIGHT = 88;
const TOP = 16;
/** The ends of a clip, in pixels. */
const END = 22;
const STILL = 5;

type Drag = { readonly clip: Clip; readonly x: number; readonly part: 'whole' | 'start' | 'end' };

export function ClipEditor({ song, lane, grid, window, may }: Editing<LookLane>) {
  const { document } = useHovlix();
  const palette = usePalette();
  const looks = usePlays();
  const drag = useRef<Drag | null>(null);
  const [moved, setMoved] = useState<{ readonly from: number; readonly to: number } | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const { from, to } = beatsOfBars(song, window.first, window.first + window.count - 1);
  const nameOf = (clip: Clip) => (clip.look ? (looks.find(({ id }) => id === clip.look)?.name ?? 'Gone') : 'Dark');
  const clip = lane.clips.find(({ id }) => id === chosen);
  const place = (one: Clip, where: { readonly from: number; readonly to: number }) =>
    where.to > where.from && document.make({ type: 'move-clip', song: song.id, lane: lane.id, clip: one.id, ...where });
  const remove = (one: Clip) => {
    document.make({ type: 'clear-bars', song: song.id, lane: lane.id, from: one.from, to: one.to });
    setChosen(null);
  };

  const xIn = (event: PointerEvent<HTMLDivElement>) => event.clientX - event.currentTarget.getBoundingClientRect().left;
  const press = (event: PointerEvent<HTMLDivElement>) => {
    const x = xIn(event);
    const beat = beatAtX(window, x);
    const hit = lane.clips.find((one) => one.from <= beat && beat < one.to);
    setChosen(hit?.id ?? null);
    if (!hit || !may) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const [left, right] = [xOf(window, hit.from), xOf(window, hit.to)];
    // A short clip is taken as a whole.
    const ends = right - left > 3 * END;
    drag.current = { clip: hit, x, part: ends && x < left + END ? 'start' : ends && x > right - END ? 'end' : 'whole' };
  };
  const move = (event: PointerEvent<HTMLDivElement>) => {
    const now = drag.current;
    const x = xIn(event);
    if (!now || (!moved && Math.abs(x - now.x) < STILL)) return;
    const by = beatAtX(window, x) - beatAtX(window, now.x);
    const snap = (beat: number) => snapped(song, grid, beat);
    if (now.part === 'start')
      setMoved({ from: Math.min(snap(now.clip.from + by), now.clip.to - 1 / 96), to: now.clip.to });
    else if (now.part === 'end')
      setMoved({ from: now.clip.from, to: Math.max(snap(now.clip.to + by), now.clip.from + 1 / 96) });
    else {
      const start = snap(now.clip.from + by);
      setMoved({ from: start, to: start + now.clip.to - now.clip.from });
    }
  };
  const lift = () => {
    if (drag.current && moved) place(drag.current.clip, moved);
    cancel();
  };
  const cancel = () => {
    drag.current = null;
    setMoved(null);
  };

  return (
    <Column flex={1} minHeight={0}>
      <div
        role="application"
        aria-label={`Looks of ${lane.name}`}
        onPointerDown={press}
        onPointerMove={move}
        onPointerUp={lift}
        onPointerCancel={cancel}
        style={{ position: 'relative', height: HEIGHT, flexShrink: 0, overflow: 'hidden', touchAction: 'none', cursor: 'grab', background: palette.ground }}
      >
        <GridLines window={window} grid={grid} />
        {lane.clips
          .filter((one) => one.to > from && one.from < to)
          .map((one) => {
            const at = moved && one.id === chosen ? moved : one;
            const [left, right] = [xOf(window, at.from), xOf(window, at.to)];
            return (
              <div
                key={one.id}
                data-clip-box={nameOf(one)}
                data-chosen={one.id === chosen || undefined}
                style={{ position: 'absolute', left, width: Math.max(4, right - left - 1), top: TOP, height: HEIGHT - 2 * TOP, borderRadius: 8, boxSizing: 'border-box', border: `2px solid ${one.id === chosen ? palette.doing : 'transparent'}`, background: palette.well, color: palette.text, overflow: 'hidden', pointerEvents: 'none', zIndex: one.id === chosen ? 2 : 1 }}
              >
                <div style={{ position: 'absolute', left: 0, right: 0, top: 0, height: 8, background: tickColour(looks.find(({ id }) => id === one.look)) }} />
                <div style={{ padding: `14px 8px 14px ${8 + Math.max(0, -left)}px`, font: '600 14px/18px Figtree', whiteSpace: 'nowrap', textOverflow: 'ellipsis', overflow: 'hidden' }}>{nameOf(one)}</div>
                {one.id === chosen && right - left > 3 * END && (
                  <>
                    <div style={{ position: 'absolute', left: 4, top: 20, bottom: 8, width: 4, borderRadius: 2, background: palette.doing }} />
                    <div style={{ position: 'absolute', right: 4, top: 20, bottom: 8, width: 4, borderRadius: 2, background: palette.doing }} />
                  </>
                )}
              </div>
            );
          })}
        <Pin first={window.first} count={window.count} barWidth={window.width / window.count} />
      </div>
      {clip && may ? (
        <div style={{ overflowY: 'auto', minHeight: 0, background: palette.raised, borderTop: `1px solid ${palette.line}` }}>
          <Column gap={10} paddingVertical={8} role="group" aria-label="Chosen clip">
            <Row gap={4} justifyContent="space-between" paddingHorizontal={16}>
              <Words fontWeight="600" numberOfLines={1} flexShrink={1}>{nameOf(clip)}</Words>
              <Row>
                <Button label="Delete clip" kind="quiet" onPress={() => remove(clip)}>
                  <Trash size={20} color={palette.text} aria-hidden />
                </Button>
                <Button label="Clear selection" kind="quiet" onPress={() => setChosen(null)}>
                  <X size={20} color={palette.text} aria-hidden />
                </Button>
              </Row>
            </Row>
            <Row gap={10} paddingHorizontal={16} flexWrap="wrap" alignItems="flex-start">
              {(['from', 'to'] as const).map((end) => (
                <Column key={`${end} ${clip[end]}`} flex={1} minWidth={120} gap={2}>
                  <Typed
                    label={end === 'from' ? 'Begins at bar and beat' : 'Ends at bar and beat'}
                    value={placeText(song, clip[end])}
                    read={readPlace(song)}
                    onChange={(text) => {
                      const at = beatOfPlace(song, text);
                      if (at !== undefined) place(clip, { from: clip.from, to: clip.to, [end]: at });
                    }}
                    numeric
                  />
                  <Typed
                    label={end === 'from' ? 'Begins at minutes and seconds' : 'Ends at minutes and seconds'}
                    value={preciseText(timeAt(song.tempo, beats(clip[end])))}
                    read={readSeconds}
                    onChange={(text) => {
                      const at = beatAt(song.tempo, seconds(secondsOfText(text)!));
                      place(clip, { from: clip.from, to: clip.to, [end]: at });
                    }}
                    numeric
                  />
                </Column>
              ))}
            </Row>
            <ClipFades song={song} lane={lane.id} clip={clip} looks={looks} />
            <ClipChange song={song} lane={lane.id} clip={clip} />
          </Column>
        </div>
      ) : (
        <Quiet padding={12}>Drag a look to move it, its ends to make it longer or shorter. Looks are laid on the lead sheet.</Quiet>
      )}
    </Column>
  ); // prettier-ignore
}
