// The clip under the chosen bars, taken on the sheet: dragged by its head it moves, by its end it gets longer or shorter.

import { useRef, type PointerEvent } from 'react';
import { useDrag } from '../../ui/drag';
import { usePalette } from '../../ui/palette';
import { WORDS } from './words';

export type Part = 'whole' | 'end';

type Props = {
  /** Shares of the line's width; undefined where that end lies on another line. */
  readonly head: number | undefined;
  readonly end: number | undefined;
  readonly top: number;
  /** Told with each bar that it is dragged over; `done` as it is let go, with no bar where it stays as it was. */
  readonly onDrag: (part: Part, bar: number | undefined, done: boolean) => void;
};

const SIZE = 44;
/** Less than this, in pixels, is a tap. */
const STILL = 6;

/** The bar under a finger, on whatever line. */
function barUnder(event: PointerEvent): number | undefined {
  const under = window.document
    .elementsFromPoint(event.clientX, event.clientY)
    .find((element) => element instanceof HTMLElement && element.dataset['bar'] !== undefined);
  return under instanceof HTMLElement ? Number(under.dataset['bar']) : undefined;
}

export function ClipHandles({ head, end, top, onDrag }: Props) {
  return (
    <>
      {head !== undefined && <Handle part="whole" at={head} top={top} onDrag={onDrag} />}
      {end !== undefined && <Handle part="end" at={end} top={top} onDrag={onDrag} />}
    </>
  );
}

function Handle({
  part,
  at,
  top,
  onDrag,
}: Pick<Props, 'top' | 'onDrag'> & { readonly part: Part; readonly at: number }) {
  const palette = usePalette();
  /** Where it was taken, and the bar that it was dragged to. */
  const held = useRef<{ readonly x: number; readonly y: number; readonly bar?: number | undefined } | null>(null);
  const move = (event: PointerEvent) => {
    const now = held.current;
    if (!now) return;
    const still = Math.hypot(event.clientX - now.x, event.clientY - now.y) < STILL;
    // A handle reaches into the bar beside it: a tap there drags nothing.
    if (still && now.bar === undefined) return;
    const bar = barUnder(event) ?? now.bar;
    held.current = { ...now, bar };
    if (bar !== undefined) onDrag(part, bar, false);
  };
  const end = (bar: number | undefined) => {
    if (held.current?.bar !== undefined) onDrag(part, bar, true);
    held.current = null;
  };
  const hands = useDrag<HTMLDivElement>({
    down: ({ clientX, clientY }) => void (held.current = { x: clientX, y: clientY }),
    move,
    up: () => end(held.current?.bar),
    cancel: () => end(undefined),
  });
  return (
    <div
      data-handle={part}
      title={part === 'whole' ? WORDS.dragMoveLook : WORDS.dragMakeLonger}
      {...hands}
      style={{
        position: 'absolute',
        left: `calc(${at * 100}% - ${part === 'end' ? SIZE - 8 : 8}px)`,
        top: top + 9 - SIZE / 2,
        width: SIZE,
        height: SIZE,
        touchAction: 'none',
        cursor: part === 'whole' ? 'grab' : 'ew-resize',
        zIndex: 3,
      }}
    >
      <div
        style={{
          position: 'absolute',
          top: SIZE / 2 - 14,
          [part === 'end' ? 'right' : 'left']: 4,
          width: part === 'end' ? 8 : 14,
          height: 28,
          borderRadius: part === 'end' ? 4 : 8,
          background: palette.doing,
          boxShadow: '0 1px 4px rgba(0,0,0,.5)',
          display: 'flex',
          alignItems: 'center',
          justifyContent: 'center',
          color: palette.onDoing,
          font: '600 11px/28px Figtree',
        }}
      >
        {part === 'whole' ? '⠿' : ''}
      </div>
    </div>
  );
}
