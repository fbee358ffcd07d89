// Looks in Close-up: drag a clip to move it, its ends to make it longer or shorter, a box to choose many; all on the grid.

import { useRef, useState, type PointerEvent } from 'react';
import { counted } from '@hovlix/core/counted';
import { beatsOfBars, type Clip, type LookLane } from '@hovlix/core/song';
import { useHovlix, usePlays } from '../../../host/hovlix';
import { usePalette } from '../../../ui/palette';
import { Column, Quiet } from '../../../ui/pieces';
import { someClips } from '../clip-edits';
import { tickColour } from '../model';
import { Pin } from '../Pin';
import { ChosenClips } from './ChosenClips';
import { toggledIn, type Editing } from './editing';
import { beatAtX, gridLength, snapped, xOf } from './grid';
import { GridLines } from './Paper';
import { useChosenKeys } from './use-chosen-keys';
import { WORDS } from './words';

const HEIGHT = 88;
const TOP = 16;
/** The ends of a clip, in pixels. */
const END = 22;
const STILL = 5;

/** The whole of what is chosen is moved, one end of one clip, or a box is drawn around some. */
type Gesture = {
  readonly part: 'whole' | 'start' | 'end' | 'box';
  readonly x: number;
  readonly clip: Clip | undefined;
};
type Span = { readonly from: number; readonly to: number };

export function ClipEditor({ song, lane, grid, window, may }: Editing<LookLane>) {
  const { document } = useHovlix();
  const palette = usePalette();
  const looks = usePlays();
  const gesture = useRef<Gesture | null>(null);
  const [moved, setMoved] = useState<(Span & { readonly by: number }) | null>(null);
  const [box, setBox] = useState<readonly [number, number] | null>(null);
  const [wanted, setChosen] = useState<ReadonlySet<string>>(new Set());
  /** A tap takes one more along. */
  const [several, setSeveral] = useState(false);
  const { from, to } = beatsOfBars(song, window.first, window.first + window.count - 1);
  const nameOf = (clip: Clip) => (clip.look ? (looks.find(({ id }) => id === clip.look)?.name ?? 'Gone') : 'Dark');
  const clips = someClips(lane.clips.filter(({ id }) => wanted.has(id)));
  const inView = lane.clips.filter((one) => one.to > from && one.from < to);
  const on = { song: song.id, lane: lane.id };
  const ids = clips?.map(({ id }) => id) ?? [];
  /** Of what was chosen, what is still there. */
  const chosen: ReadonlySet<string> = new Set(ids);
  const place = (one: Clip, where: Span) =>
    where.to > where.from && document.make({ type: 'move-clip', ...on, clip: one.id, ...where });
  const shift = (by: number) => by !== 0 && clips && document.make({ type: 'move-clips', ...on, clips: ids, by });
  const none = () => {
    setChosen(new Set());
    setSeveral(false);
  };
  const remove = () => {
    document.make({ type: 'remove-clips', ...on, clips: ids });
    none();
  };
  useChosenKeys({
    wanted: may,
    any: clips !== undefined,
    remove,
    all: () => setChosen(new Set(inView.map(({ id }) => id))),
    none,
    nudge: (way) => shift(way * gridLength(song, grid, window.first)),
  });

  const press = (event: PointerEvent<HTMLDivElement>) => {
    const bounds = event.currentTarget.getBoundingClientRect();
    const [x, y] = [event.clientX - bounds.left, event.clientY - bounds.top];
    const beat = beatAtX(window, x);
    const onClips = y >= TOP && y <= HEIGHT - TOP;
    const hit = onClips ? lane.clips.find((one) => one.from <= beat && beat < one.to) : undefined;
    event.currentTarget.setPointerCapture(event.pointerId);
    if (!hit) return void (gesture.current = { part: 'box', x, clip: undefined });
    const next =
      several || event.shiftKey ? toggledIn(chosen, hit.id) : chosen.has(hit.id) ? chosen : new Set([hit.id]);
    setChosen(next);
    if (!may || !next.has(hit.id)) return;
    const [left, right] = [xOf(window, hit.from), xOf(window, hit.to)];
    // A short clip is taken as a whole, and so are several.
    const ends = next.size === 1 && right - left > 3 * END;
    gesture.current = {
      part: ends && x < left + END ? 'start' : ends && x > right - END ? 'end' : 'whole',
      x,
      clip: hit,
    };
  };
  const move = (event: PointerEvent<HTMLDivElement>) => {
    const now = gesture.current;
    const x = event.clientX - event.currentTarget.getBoundingClientRect().left;
    if (!now || (!moved && !box && Math.abs(x - now.x) < STILL)) return;
    if (!now.clip) return setBox([Math.min(now.x, x), Math.max(now.x, x)]);
    const by = beatAtX(window, x) - beatAtX(window, now.x);
    const snap = (beat: number) => snapped(song, grid, beat);
    if (now.part === 'start')
      setMoved({ from: Math.min(snap(now.clip.from + by), now.clip.to - 1 / 96), to: now.clip.to, by: 0 });
    else if (now.part === 'end')
      setMoved({ from: now.clip.from, to: Math.max(snap(now.clip.to + by), now.clip.from + 1 / 96), by: 0 });
    else {
      const start = snap(now.clip.from + by);
      setMoved({ from: start, to: start + now.clip.to - now.clip.from, by: start - now.clip.from });
    }
  };
  const lift = () => {
    const now = gesture.current;
    if (now?.clip && moved) {
      if (chosen.size > 1) shift(moved.by);
      else place(now.clip, moved);
    } else if (box) {
      const [first, last] = box.map((x) => beatAtX(window, x)) as [number, number];
      const within = inView.filter((one) => one.to > first && one.from < last).map(({ id }) => id);
      setChosen(new Set(several ? [...chosen, ...within] : within));
    } else if (now?.part === 'box' && !several) none();
    cancel();
  };
  const cancel = () => {
    gesture.current = null;
    setMoved(null);
    setBox(null);
  };
  /** Where a clip is seen while it, or all that are chosen, are moved. */
  const shownAt = (one: Clip): Span => {
    if (!moved || !chosen.has(one.id)) return one;
    return chosen.size === 1 ? moved : { from: one.from + moved.by, to: one.to + moved.by };
  };

  return (
    <Column flex={1} minHeight={0}>
      <div
        role="application"
        aria-label={WORDS.looksOf(lane.name)}
        onPointerDown={press}
        onPointerMove={move}
        onPointerUp={lift}
        onPointerCancel={cancel}
        style={{
          position: 'relative',
          height: HEIGHT,
          flexShrink: 0,
          overflow: 'hidden',
          touchAction: 'none',
          userSelect: 'none',
          cursor: 'grab',
          background: palette.ground,
        }}
      >
        <GridLines window={window} grid={grid} />
        {lane.clips
          .filter((one) => shownAt(one).to > from && shownAt(one).from < to)
          .map((one) => {
            const at = shownAt(one);
            const [left, right] = [xOf(window, at.from), xOf(window, at.to)];
            const held = chosen.has(one.id);
            return (
              <div
                key={one.id}
                data-clip-box={nameOf(one)}
                data-chosen={held || undefined}
                style={{
                  position: 'absolute',
                  left,
                  width: Math.max(4, right - left - 1),
                  top: TOP,
                  height: HEIGHT - 2 * TOP,
                  borderRadius: 8,
                  boxSizing: 'border-box',
                  border: `2px solid ${held ? palette.doing : 'transparent'}`,
                  background: palette.well,
                  color: palette.text,
                  overflow: 'hidden',
                  pointerEvents: 'none',
                  zIndex: held ? 2 : 1,
                }}
              >
                <div
                  style={{
                    position: 'absolute',
                    left: 0,
                    right: 0,
                    top: 0,
                    height: 8,
                    background: tickColour(looks.find(({ id }) => id === one.look)),
                  }}
                />
                <div
                  style={{
                    padding: `14px 8px 14px ${8 + Math.max(0, -left)}px`,
                    font: '600 14px/18px Figtree',
                    whiteSpace: 'nowrap',
                    textOverflow: 'ellipsis',
                    overflow: 'hidden',
                  }}
                >
                  {nameOf(one)}
                </div>
                {held && chosen.size === 1 && right - left > 3 * END && (
                  <>
                    <div
                      style={{
                        position: 'absolute',
                        left: 4,
                        top: 20,
                        bottom: 8,
                        width: 4,
                        borderRadius: 2,
                        background: palette.doing,
                      }}
                    />
                    <div
                      style={{
                        position: 'absolute',
                        right: 4,
                        top: 20,
                        bottom: 8,
                        width: 4,
                        borderRadius: 2,
                        background: palette.doing,
                      }}
                    />
                  </>
                )}
              </div>
            );
          })}
        {box && (
          <div
            aria-hidden
            style={{
              position: 'absolute',
              left: box[0],
              width: box[1] - box[0],
              top: 2,
              bottom: 2,
              border: `1.5px solid ${palette.doing}`,
              background: `${palette.doing}22`,
              pointerEvents: 'none',
              zIndex: 3,
            }}
          />
        )}
        <Pin first={window.first} count={window.count} barWidth={window.width / window.count} />
      </div>
      {clips && may ? (
        <ChosenClips
          song={song}
          lane={lane.id}
          clips={clips}
          name={clips.length === 1 ? nameOf(clips[0]) : counted(clips.length, 'clip')}
          looks={looks}
          several={several}
          onSeveral={setSeveral}
          onAll={
            inView.every(({ id }) => chosen.has(id))
              ? undefined
              : () => setChosen(new Set([...chosen, ...inView.map(({ id }) => id)]))
          }
          onPlace={(where) => place(clips[0], where)}
          onRemove={remove}
          onDone={none}
        />
      ) : (
        <Quiet padding={12}>{WORDS.dragLookMove}</Quiet>
      )}
    </Column>
  );
}
