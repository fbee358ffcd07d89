// A line to a conductor, whatever it is made of.

/** What the line tells this screen. */
export type LineEvents = {
  readonly opened: () => void;
  readonly heard: (text: string) => void;
  /** It is gone; `code` as a WebSocket has it. */
  readonly closed: (code: number) => void;
};

/** This screen's side of it. Nothing is told before `start`. */
export type OwnLine = {
  readonly start: () => void;
  readonly send: (text: string) => void;
  /** Ends it; nothing more is told. */
  readonly close: () => void;
  /** It was found dead: as if it had been closed by the other side. */
  readonly fail: () => void;
};

export type OpenLine = (events: LineEvents) => OwnLine;

/** The host sent this device away. */
export const SENT_AWAY = 4001;
const DEAD = 4000;

/** To the server this page came from. */
export const serverLine: OpenLine = (events) => {
  let socket: WebSocket | undefined;
  let over = false;
  const closed = (code: number) => {
    if (over) return;
    over = true;
    events.closed(code);
  };
  return {
    start() {
      const { protocol, host } = window.location;
      socket = new WebSocket(`${protocol === 'https:' ? 'wss' : 'ws'}://${host}/conductor`);
      socket.onopen = events.opened;
      socket.onmessage = (event) => over || events.heard(String(event.data));
      socket.onclose = ({ code }) => closed(code);
    },
    send(text) {
      if (socket?.readyState === WebSocket.OPEN) socket.send(text);
    },
    close() {
      over = true;
      socket?.close();
    },
    fail() {
      // A socket that has no peer any more takes minutes to say so itself.
      socket?.close();
      closed(DEAD);
    },
  };
};
