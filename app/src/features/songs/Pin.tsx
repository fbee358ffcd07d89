// Where the song is, over a line of bars.

import { useEffect, useRef } from 'react';
import { usePalette } from '../../ui/palette';

type Props = {
  readonly first: number;
  readonly count: number;
  /** Pixels from one bar line to the next. */
  readonly barWidth: number;
  /** With a mark at its top. */
  readonly marked?: boolean;
};

/** The pins on the screen, and what each lies over. */
const pins = new Map<HTMLElement, Props>();

/** Moved by the clock of the lead sheet ({@link movePins}), beside the page: nothing under it is painted again. */
export function Pin(props: Props) {
  const palette = usePalette();
  const pin = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = pin.current!;
    pins.set(element, props);
    return () => void pins.delete(element);
  });
  return (
    <div
      ref={pin}
      data-pin
      data-first={props.first}
      style={{
        position: 'absolute',
        left: -1,
        top: 0,
        bottom: 0,
        width: 2,
        background: palette.doing,
        opacity: 0,
        pointerEvents: 'none',
        zIndex: 3,
      }}
    >
      {props.marked && (
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
      )}
    </div>
  );
}

/** Where a song is. */
export type Run = {
  /** Bars from its first. */
  readonly place: number;
  /** Bars a second; 0 while it is paused. */
  readonly speed: number;
};

/** How far the pin is sent ahead, in ms: until then nobody has to move it, however busy the page is. */
const AHEAD_MS = 400;
/** It is sent anew when it is off by more pixels than this: the song jumped, came round in a loop, or changes its tempo. */
const OFF = 1.5;

type Move = Run & { readonly at: number; readonly width: number; readonly animation: Animation | undefined };
const moves = new WeakMap<HTMLElement, Move>();

/** To be called with every picture of the screen. @param at ms. */
export function movePins(run: Run, at: number): void {
  for (const [pin, over] of pins) movePin(pin, over, run, at);
}

function movePin(pin: HTMLElement, { first, count, barWidth: width }: Props, { place, speed }: Run, at: number): void {
  const inside = place >= first && place < first + count;
  const before = moves.get(pin);
  // What is as it was is not touched: the page would work out all of its styles anew.
  if (inside !== (pin.style.opacity === '1')) {
    pin.style.opacity = inside ? '1' : '0';
    pin.parentElement!.dataset['sounding'] = String(inside);
  }
  if (!inside) {
    before?.animation?.cancel();
    moves.delete(pin);
    return;
  }
  if (before && before.width === width && still(before, { place, speed }, at)) return;
  const [from, to] = [place, place + (speed * 2 * AHEAD_MS) / 1000].map(
    (bars) => `translateX(${(bars - first) * width}px)`,
  );
  pin.style.transform = from!;
  const animation = speed === 0 ? undefined : pin.animate({ transform: [from!, to!] }, 2 * AHEAD_MS);
  before?.animation?.cancel();
  moves.set(pin, { place, speed, at, width, animation });
}

/** Whether a pin that was sent on its way is where it should be, and has some way to go. */
function still(move: Move, { place, speed }: Run, at: number): boolean {
  if (speed === 0 || move.speed === 0) return speed === move.speed && place === move.place;
  const expected = move.place + (move.speed * (at - move.at)) / 1000;
  return at < move.at + AHEAD_MS && Math.abs(place - expected) * move.width < OFF;
}
