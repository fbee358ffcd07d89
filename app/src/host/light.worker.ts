// Connects the light room to its page.

import { lightRoom } from './light-room';
import type { ToLight } from './light-messages';
import { localSeconds } from './local-clock';

const room = lightRoom(localSeconds, (message, hand) => self.postMessage(message, { transfer: hand ?? [] }));
self.onmessage = (event: MessageEvent<ToLight>) => room.hear(event.data);
// A little faster than screens draw, so that each has a fresh frame; late ones are simply left out.
setInterval(() => room.frame(), 15);
