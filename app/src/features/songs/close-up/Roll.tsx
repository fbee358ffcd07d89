// The notes of a hit lane on their rows: tap to add or choose, drag to move, the right end to make longer, a box to choose many.

import { useRef, useState, type PointerEvent } from 'react';
import { barAt } from '@hovlix/core/time';
import type { HitLane, Note } from '@hovlix/core/song';
import { beats, clamp } from '@hovlix/core/units';
import { freshId } from '../../../host/fresh-id';
import { useDrag } from '../../../ui/drag';
import { usePalette } from '../../../ui/palette';
import { USUAL_LENGTH } from '../hits';
import { toggledIn } from './editing';
import { beatAtX, gridLength, snapped, type Grid, type Window } from './grid';
import { Pin } from '../Pin';
import { GridLines } from './Paper';
import { laidNotes, longerNotes, movedNotes, PAD_HEIGHT, underFinger, type Laid, type Pad } from './roll';
import { WORDS } from './words';

type Props = {
  readonly window: Window;
  readonly grid: Grid;
  readonly pads: readonly Pad[];
  readonly lane: HitLane;
  /** Beats of the bars that show. */
  readonly from: number;
  readonly to: number;
  readonly may: boolean;
  readonly chosen: ReadonlySet<string>;
  readonly onChoose: (ids: ReadonlySet<string>) => void;
  readonly onPad: (note: number) => void;
  readonly onPut: (notes: readonly Note[]) => void;
};

type Place = { readonly x: number; readonly y: number };
type Gesture = {
  readonly kind: 'add' | 'move' | 'longer' | 'box';
  readonly start: Place;
  /** What is dragged, as it was, and the note that was taken hold of. */
  readonly notes: readonly Note[];
  readonly anchor: Note | undefined;
};

/** Less than this, in pixels, is a tap. */
const STILL = 6;
const VELOCITY = 0.8;

export function Roll({ window, grid, pads, lane, from, to, may, chosen, onChoose, onPad, onPut }: Props) {
  const palette = usePalette();
  const gesture = useRef<Gesture | null>(null);
  const [dragged, setDragged] = useState<readonly Note[]>([]);
  const [box, setBox] = useState<readonly [Place, Place] | null>(null);
  const moving = new Map(dragged.map((note) => [note.id, note]));
  const shown = lane.notes.map((note) => moving.get(note.id) ?? note);
  const laid = laidNotes(window, pads, shown, from, to);
  const { song } = window;

  const placeOf = (event: PointerEvent<HTMLDivElement>): Place => {
    const bounds = event.currentTarget.getBoundingClientRect();
    return { x: event.clientX - bounds.left, y: event.clientY - bounds.top };
  };
  const rowAt = ({ y }: Place) => clamp(Math.floor(y / PAD_HEIGHT), 0, pads.length - 1);

  const press = (event: PointerEvent<HTMLDivElement>) => {
    if (!may) return false;
    const start = placeOf(event);
    const hit = underFinger(laid, rowAt(start), start.x);
    onPad(pads[rowAt(start)]!.note);
    if (!hit) {
      gesture.current = { kind: 'add', start, notes: [], anchor: undefined };
      return true;
    }
    const together = chosen.has(hit.note.id) ? lane.notes.filter(({ id }) => chosen.has(id)) : [hit.note];
    gesture.current = { kind: hit.end ? 'longer' : 'move', start, notes: together, anchor: hit.note };
    if (event.shiftKey) onChoose(toggledIn(chosen, hit.note.id));
    else if (!chosen.has(hit.note.id)) onChoose(new Set([hit.note.id]));
    return true;
  };

  const drag = (event: PointerEvent<HTMLDivElement>) => {
    const now = gesture.current;
    if (!now) return;
    const place = placeOf(event);
    if (
      Math.abs(place.x - now.start.x) < STILL &&
      Math.abs(place.y - now.start.y) < STILL &&
      dragged.length === 0 &&
      !box
    )
      return;
    if (!now.anchor) {
      gesture.current = { ...now, kind: 'box' };
      return setBox([now.start, place]);
    }
    // Straight up or down they stay where they are in time, also beside the grid.
    const across = Math.abs(place.x - now.start.x) >= STILL;
    const by = across ? beatAtX(window, place.x) - beatAtX(window, now.start.x) : 0;
    if (now.kind === 'longer') {
      const end = snapped(song, grid, now.anchor.at + now.anchor.length + by);
      return setDragged(longerNotes(now.notes, end - now.anchor.at - now.anchor.length));
    }
    const at = across ? snapped(song, grid, now.anchor.at + by) : now.anchor.at;
    setDragged(movedNotes(song, now.notes, at - now.anchor.at, rowAt(place) - rowAt(now.start), pads));
  };

  const lift = () => {
    const now = gesture.current;
    gesture.current = null;
    if (dragged.length > 0) onPut(dragged);
    else if (box) onChoose(new Set(within(laid, box).map(({ note }) => note.id)));
    else if (now?.kind === 'add') {
      // A tap beside what is chosen lets go of it first.
      if (chosen.size > 0) onChoose(new Set());
      else add(now.start);
    }
    setDragged([]);
    setBox(null);
  };

  const add = (place: Place) => {
    const at = snapped(song, grid, beatAtX(window, place.x), true);
    const length = grid === 'off' ? USUAL_LENGTH : gridLength(song, grid, barAt(song.meter, beats(at)).bar);
    const { note } = pads[rowAt(place)]!;
    onPut([{ id: freshId() as Note['id'], at: beats(at), length: beats(length), note, velocity: VELOCITY }]);
  };

  const cancel = () => {
    gesture.current = null;
    setDragged([]);
    setBox(null);
  };

  const hands = useDrag<HTMLDivElement>({ down: press, move: drag, up: lift, cancel });
  return (
    <div
      role="application"
      aria-label={WORDS.notesOf(lane.name)}
      {...hands}
      style={{
        position: 'relative',
        width: window.width,
        height: pads.length * PAD_HEIGHT,
        overflow: 'hidden',
        touchAction: 'none',
        cursor: may ? 'crosshair' : 'default',
        background: palette.ground,
      }}
    >
      {pads.map(({ note }, row) => (
        <div
          key={note}
          aria-hidden
          style={{
            position: 'absolute',
            left: 0,
            right: 0,
            top: row * PAD_HEIGHT,
            height: PAD_HEIGHT - 1,
            borderBottom: `1px solid ${palette.line}`,
          }}
        />
      ))}
      <GridLines window={window} grid={grid} />
      {laid.map(({ note, row, left, width }) => (
        <div
          key={note.id}
          data-note={`${pads[row]!.name} ${Math.round(note.at * 1000) / 1000}`}
          data-velocity={Math.round(note.velocity * 100)}
          data-chosen={chosen.has(note.id) || undefined}
          style={{
            position: 'absolute',
            left,
            width,
            // Hard notes are tall.
            height: 10 + note.velocity * 22,
            top: row * PAD_HEIGHT + (PAD_HEIGHT - 10 - note.velocity * 22) / 2,
            borderRadius: 6,
            boxSizing: 'border-box',
            background: chosen.has(note.id) ? palette.doing : palette.text,
            border: `1px solid ${palette.ground}`,
            pointerEvents: 'none',
          }}
        />
      ))}
      {box && (
        <div
          aria-hidden
          style={{
            position: 'absolute',
            ...spanOf(box),
            border: `1.5px solid ${palette.doing}`,
            background: `${palette.doing}22`,
            pointerEvents: 'none',
          }}
        />
      )}
      <Pin first={window.first} count={window.count} barWidth={window.width / window.count} />
    </div>
  );
}

const spanOf = ([a, b]: readonly [Place, Place]) => ({
  left: Math.min(a.x, b.x),
  top: Math.min(a.y, b.y),
  width: Math.abs(a.x - b.x),
  height: Math.abs(a.y - b.y),
});

function within(laid: readonly Laid[], box: readonly [Place, Place]): readonly Laid[] {
  const { left, top, width, height } = spanOf(box);
  return laid.filter((one) => {
    const y = (one.row + 0.5) * PAD_HEIGHT;
    return one.left + one.width >= left && one.left <= left + width && y >= top && y <= top + height;
  });
}
