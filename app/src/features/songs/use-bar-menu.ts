// Bars that are pressed long, or with the right button.

import { useEffect, useRef, useState } from 'react';

export type Pressed = { readonly bar: number; readonly x: number; readonly y: number };

const LONG_MS = 550;
/** A finger that moves so far scrolls. */
const STILL = 8;

const barOf = (event: Event): number | undefined => {
  const bar = (event.target as HTMLElement | null)?.closest<HTMLElement>('[data-bar]')?.dataset['bar'];
  return bar === undefined ? undefined : Number(bar);
};

/** @returns the bar that is pressed and where, and what ends that. */
export function useBarMenu(
  sheet: HTMLElement | null,
  onPressed: (bar: number) => void,
): readonly [Pressed | null, () => void] {
  const [pressed, setPressed] = useState<Pressed | null>(null);
  const latest = useRef(onPressed);
  useEffect(() => {
    latest.current = onPressed;
  });
  useEffect(() => {
    if (!sheet) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let from = { x: 0, y: 0 };
    /** The finger that opened the menu is still down: what it does as it lifts is no tap. */
    let opened = false;
    const open = (bar: number, x: number, y: number) => {
      latest.current(bar);
      setPressed({ bar, x, y });
    };
    const menu = (event: MouseEvent) => {
      const bar = barOf(event);
      if (bar === undefined) return;
      event.preventDefault();
      clearTimeout(timer);
      open(bar, event.clientX, event.clientY);
    };
    const down = (event: PointerEvent) => {
      opened = false;
      clearTimeout(timer);
      const bar = barOf(event);
      // With a second finger it is no press.
      if (bar === undefined || event.pointerType === 'mouse' || !event.isPrimary) return;
      from = { x: event.clientX, y: event.clientY };
      timer = setTimeout(() => {
        opened = true;
        open(bar, from.x, from.y);
      }, LONG_MS);
    };
    const move = (event: PointerEvent) => {
      if (Math.hypot(event.clientX - from.x, event.clientY - from.y) > STILL) clearTimeout(timer);
    };
    const end = () => clearTimeout(timer);
    const click = (event: MouseEvent) => {
      if (opened) event.stopPropagation();
      opened = false;
    };
    sheet.addEventListener('contextmenu', menu);
    sheet.addEventListener('pointerdown', down);
    sheet.addEventListener('pointermove', move);
    sheet.addEventListener('click', click, true);
    for (const kind of ['pointerup', 'pointercancel'] as const) sheet.addEventListener(kind, end);
    return () => {
      end();
      sheet.removeEventListener('contextmenu', menu);
      sheet.removeEventListener('pointerdown', down);
      sheet.removeEventListener('pointermove', move);
      sheet.removeEventListener('click', click, true);
      for (const kind of ['pointerup', 'pointercancel'] as const) sheet.removeEventListener(kind, end);
    };
  }, [sheet]);
  return [pressed, () => setPressed(null)];
}
