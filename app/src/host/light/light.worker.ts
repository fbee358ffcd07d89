// Connects the light room to its page.

import { lightRoom } from './light-room';
import type { ToLight } from './light-messages';
import { localSeconds } from '../conduct/local-clock';

const room = lightRoom(localSeconds, (message, hand) => self.postMessage(message, { transfer: hand ?? [] }));
self.onmessage = (event: MessageEvent<ToLight>) => room.hear(event.data);
// As often as DMX goes out: a picture has no more to show.
setInterval(() => room.frame(), 1000 / 44);
