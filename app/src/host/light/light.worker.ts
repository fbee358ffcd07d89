// Connects the light room to its page.

import { lightRoom } from './light-room';
import type { ToLight } from './light-messages';
import { stageWindow } from './stage-window';
import { localSeconds } from '../conduct/local-clock';

const { port1, port2 } = new MessageChannel();
let done: () => void = () => undefined;
port2.onmessage = () => done();
const stage = stageWindow({
  clock: localSeconds,
  nextFrame: (draw) => void self.requestAnimationFrame(draw),
  afterwards(then) {
    done = then;
    port1.postMessage(null);
  },
});
const room = lightRoom(localSeconds, (message, hand) => self.postMessage(message, { transfer: hand ?? [] }), stage);
// As often as DMX goes out: a picture has no more to show. While nobody looks, nothing is done.
const FRAME_MS = 1000 / 44;
let frames: ReturnType<typeof setInterval> | undefined;
const frame = () => {
  if (room.frame()) return;
  clearInterval(frames);
  frames = undefined;
};
self.onmessage = (event: MessageEvent<ToLight>) => {
  room.hear(event.data);
  frames ??= setInterval(frame, FRAME_MS);
};
