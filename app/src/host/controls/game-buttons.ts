// Buttons of game controllers, as wireless foot switches often are: looked at as often as a frame, while one is there.
// A browser that is asked for them looks for them itself (Chromium 200 times a second), so only a show that uses one asks.

import type { Document } from '../document/document';
import type { Controls } from './controls';

const LOOK_MS = 8;

export function followGameButtons(
  { key, store }: Pick<Controls, 'key' | 'store'>,
  document: Pick<Document, 'store'>,
): void {
  const was = new Map<number, boolean>();
  let timer: ReturnType<typeof setInterval> | undefined;
  let asked = false;
  const look = () => {
    const pads = navigator.getGamepads?.() ?? [];
    if (!pads.some((pad) => pad?.connected)) {
      clearInterval(timer);
      timer = undefined;
    }
    const most = Math.max(0, ...pads.map((pad) => pad?.buttons.length ?? 0));
    for (let button = 0; button < Math.min(64, Math.max(most, was.size)); button++) {
      const down = pads.some((pad) => pad?.buttons[button]?.pressed === true);
      if ((was.get(button) ?? false) === down) continue;
      was.set(button, down);
      key({ by: 'button', button }, down);
    }
  };
  const start = () => void (timer ??= setInterval(look, LOOK_MS));
  const ask = () => {
    window.addEventListener('gamepadconnected', start);
    window.addEventListener('gamepaddisconnected', look);
    // One that was plugged in before says nothing any more.
    start();
  };
  const leave = () => {
    window.removeEventListener('gamepadconnected', start);
    window.removeEventListener('gamepaddisconnected', look);
    clearInterval(timer);
    timer = undefined;
    for (const [button, down] of was) if (down) key({ by: 'button', button }, false);
    was.clear();
  };
  const decide = () => {
    const uses = document.store.getState().show?.controls.some(({ source }) => source?.by === 'button') ?? false;
    const wanted = uses || store.getState().learns !== null;
    if (wanted === asked) return;
    asked = wanted;
    if (wanted) ask();
    else leave();
  };
  decide();
  store.subscribe(({ learns }, before) => learns !== before.learns && decide());
  document.store.subscribe(({ show }, before) => show?.controls !== before.show?.controls && decide());
}
