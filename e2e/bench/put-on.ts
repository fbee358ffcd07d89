// A show for the server of a bench, as an operator's screen puts one on.

import type { Page } from '@playwright/test';
import { PROTOCOL, type LiveState } from '@hovlix/core/live';
import type { Show } from '@hovlix/core/show';

/** @param page any page of the server. */
export async function putOn(page: Page, show: Show): Promise<void> {
  const message = JSON.stringify({ type: 'put-on', show, chain: ['bench'] });
  // As text: the names that tsx gives to functions do not exist in the page.
  const hello = JSON.stringify({ type: 'hello', protocol: PROTOCOL, screen: 'bench', show: null });
  await page.evaluate(`new Promise((resolve, reject) => {
    const socket = new WebSocket('ws://' + location.host + '/conductor');
    socket.onopen = () => socket.send(${JSON.stringify(hello)});
    let said = false;
    socket.onmessage = (event) => {
      const { type, why } = JSON.parse(event.data);
      if (type === 'pong') resolve(socket.close());
      if (type === 'refused') reject(new Error('Refused: ' + why));
      if (said || type === 'pong') return;
      said = true;
      socket.send(${JSON.stringify(message)});
      socket.send('{"type":"ping","sent":0}');
    };
  })`);
}

/** What is on, as the conductor tells whoever joins. */
export function liveOf(page: Page): Promise<LiveState> {
  const hello = JSON.stringify({ type: 'hello', protocol: PROTOCOL, screen: 'bench-look', show: null });
  return page.evaluate<LiveState>(`new Promise((resolve) => {
    const socket = new WebSocket('ws://' + location.host + '/conductor');
    socket.onopen = () => socket.send(${JSON.stringify(hello)});
    socket.onmessage = (event) => {
      const { type, state } = JSON.parse(event.data);
      if (type !== 'welcome') return;
      socket.close();
      resolve(state);
    };
  })`);
}
