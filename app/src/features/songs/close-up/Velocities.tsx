// How hard the notes are that show: a stem for each, dragged up for harder and down for softer.

import { useState, type PointerEvent } from 'react';
import type { Note } from '@hovlix/core/song';
import { clamp } from '@hovlix/core/units';
import { useDrag } from '../../../ui/drag';
import { usePalette } from '../../../ui/palette';
import { xOf, type Window } from './grid';
import { harderNotes } from './roll';
import { WORDS } from './words';

type Props = {
  readonly window: Window;
  readonly gutter: number;
  readonly notes: readonly Note[];
  readonly chosen: ReadonlySet<string>;
  readonly may: boolean;
  readonly onPut: (notes: readonly Note[]) => void;
};

const HEIGHT = 52;
const TOP = 8;
const NEAR = 16;
const NUDGE = 0.05;

export function Velocities({ window, gutter, notes, chosen, may, onPut }: Props) {
  const palette = usePalette();
  /** What is dragged, as it was, and the note that the finger is on. */
  const [held, setHeld] = useState<{ readonly all: readonly Note[]; readonly anchor: Note } | null>(null);
  const [dragged, setDragged] = useState<readonly Note[]>([]);
  const changed = new Map(dragged.map((note) => [note.id, note]));
  const shown = notes.map((note) => changed.get(note.id) ?? note);
  const velocityAt = (event: PointerEvent<HTMLDivElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    return clamp(1 - (event.clientY - box.top - TOP) / (HEIGHT - TOP), 0.02, 1);
  };
  const press = (event: PointerEvent<HTMLDivElement>) => {
    if (!may) return false;
    const x = event.clientX - event.currentTarget.getBoundingClientRect().left - gutter;
    const off = (note: Note) => Math.abs(xOf(window, note.at) - x);
    // Of several at one place those that are chosen come first.
    const nearest = [...notes].sort(
      (a, b) => off(a) - off(b) || Number(chosen.has(b.id)) - Number(chosen.has(a.id)),
    )[0];
    if (!nearest || off(nearest) > NEAR) return false;
    const all = chosen.has(nearest.id)
      ? notes.filter(({ id }) => chosen.has(id))
      : notes.filter((one) => one.at === nearest.at && (chosen.size === 0 || one.id === nearest.id));
    setHeld({ all, anchor: nearest });
    setDragged(moved(all, nearest, velocityAt(event)));
    return true;
  };
  const letGo = () => {
    setHeld(null);
    setDragged([]);
  };
  const hands = useDrag<HTMLDivElement>({
    down: press,
    move: (event) => held && setDragged(moved(held.all, held.anchor, velocityAt(event))),
    up: () => {
      if (dragged.length > 0) onPut(dragged);
      letGo();
    },
    cancel: letGo,
  });
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={WORDS.velocityNotes}
      aria-valuemin={2}
      aria-valuemax={100}
      aria-valuenow={Math.round(((shown.find(({ id }) => chosen.has(id)) ?? shown[0])?.velocity ?? 0) * 100)}
      onKeyDown={(event) => {
        const way = { ArrowUp: NUDGE, ArrowDown: -NUDGE }[event.key];
        if (way === undefined || !may) return;
        event.preventDefault();
        onPut(
          harderNotes(
            notes.filter(({ id }) => chosen.size === 0 || chosen.has(id)),
            way,
          ),
        );
      }}
      {...hands}
      style={{
        position: 'relative',
        height: HEIGHT,
        flexShrink: 0,
        borderTop: `1px solid ${palette.line}`,
        background: palette.sunken,
        touchAction: 'none',
        cursor: 'ns-resize',
      }}
    >
      <span
        aria-hidden
        style={{
          position: 'absolute',
          left: 8,
          top: 6,
          font: '500 12px/14px Figtree',
          color: palette.quiet,
          width: gutter - 12,
        }}
      >
        {WORDS.velocity}
      </span>
      {shown.map((note) => (
        <div
          key={note.id}
          aria-hidden
          style={{
            position: 'absolute',
            left: gutter + xOf(window, note.at),
            bottom: 0,
            width: 2,
            height: note.velocity * (HEIGHT - TOP),
            background: chosen.has(note.id) ? palette.doing : palette.quiet,
          }}
        >
          <div
            style={{
              position: 'absolute',
              left: -3,
              top: -4,
              width: 8,
              height: 8,
              borderRadius: 4,
              background: chosen.has(note.id) ? palette.doing : palette.text,
            }}
          />
        </div>
      ))}
    </div>
  );
}

/** The one under the finger goes to a velocity; what moves with it keeps its distance. */
const moved = (all: readonly Note[], anchor: Note, velocity: number): readonly Note[] =>
  harderNotes(all, velocity - anchor.velocity);
