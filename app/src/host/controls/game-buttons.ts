// Buttons of game controllers, as wireless foot switches often are: looked at as often as a frame, while one is there.

import type { Controls } from './controls';

const LOOK_MS = 8;

export function followGameButtons({ key }: Pick<Controls, 'key'>): void {
  const was = new Map<number, boolean>();
  let timer: ReturnType<typeof setInterval> | undefined;
  const look = () => {
    const pads = navigator.getGamepads?.() ?? [];
    const any = pads.find((pad) => pad?.connected);
    if (!any) {
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
  window.addEventListener('gamepadconnected', start);
  window.addEventListener('gamepaddisconnected', look);
}
