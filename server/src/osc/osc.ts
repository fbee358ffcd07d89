// Listens to programs and tablets that press and move over OSC, while that is wanted.

import { NO_OSC, type OscReport } from '@hovlix/core/connect';
import type { OscHearer, OscListeners } from '@hovlix/core/osc';
import type { OscMessage, OscValue } from '@hovlix/core/wire';
import type { Seconds } from '@hovlix/core/units';
import { now } from '../clock';
import type { ConnectionsStore } from '../connect/store';
import { oscPort } from './port';

export type Osc = {
  /** What is heard; null while nobody is listened to. */
  readonly report: () => OscReport | null;
  readonly close: () => void;
};

type Start = OscHearer & {
  readonly answer: (to: OscListeners) => () => void;
  readonly connections: Pick<ConnectionsStore, 'connections' | 'onChange'>;
  /** Another address than all of this computer's. */
  readonly host?: string;
};

export function followOsc({ connections, hear, answer, host }: Start): Osc {
  const wanted = () => connections.connections().osc ?? NO_OSC;
  const senders = senderBook();
  let answered: number | null = null;
  let last: (Omit<NonNullable<OscReport['last']>, 'ago'> & { readonly at: Seconds }) | null = null;
  const take = (message: OscMessage, from: string, at: Seconds) => {
    senders.heard(from, at);
    const outcome = hear(message, at);
    if (outcome.by === 'bad') return port.refuse(outcome.why);
    const address = message.address.slice(0, MOST_LETTERS);
    const did = outcome.by === 'word' ? outcome.did : '';
    last = { address, values: valuesInWords(message.values), from, at, by: outcome.by, did };
  };
  const port = oscPort(take, host);
  const attend = () => {
    const { on, port: at, answersAt } = wanted();
    if (answersAt !== answered) senders.tellAnew();
    answered = answersAt;
    if (!port.listenAt(on ? at : undefined)) return;
    last = null;
    senders.forget();
  };
  const nobody: readonly string[] = [];
  const stopAnswering = answer({
    listeners: () => (wanted().on && wanted().answersAt !== null ? senders.lately(now()) : nobody),
    sendTo(listener, bytes) {
      const { answersAt } = wanted();
      if (answersAt !== null) port.send(bytes, answersAt, listener);
    },
  });
  connections.onChange(attend);
  attend();
  return {
    report() {
      if (port.listensAt() === undefined) return null;
      const told = last && (({ at, ...rest }) => ({ ...rest, ago: now() - at }))(last);
      return { last: told, ...port.troubles() };
    },
    close() {
      stopAnswering();
      port.close();
    },
  };
}

/** Who is told: so many at most, and nobody who has been silent for so long, in seconds. */
const MOST_SENDERS = 16;
const SILENT = 600;

/** Addresses that sent something lately. */
function senderBook() {
  const heardAt = new Map<string, number>();
  let all: readonly string[] = [];
  return {
    heard(from: string, at: number) {
      if (!heardAt.has(from)) {
        if (heardAt.size >= MOST_SENDERS) return;
        all = [...all, from];
      }
      heardAt.set(from, at);
    },
    /** The same array until somebody comes or goes. */
    lately(at: number): readonly string[] {
      for (const [from, heard] of heardAt) if (at - heard > SILENT) heardAt.delete(from);
      if (heardAt.size !== all.length) all = [...heardAt.keys()];
      return all;
    },
    tellAnew: () => void (all = [...all]),
    forget() {
      heardAt.clear();
      all = [];
    },
  };
}

const MOST_LETTERS = 120;
const MOST_VALUES = 6;

const valuesInWords = (values: readonly OscValue[]): string =>
  values.slice(0, MOST_VALUES).map(valueInWords).join(' ') + (values.length > MOST_VALUES ? ' …' : '');

function valueInWords(value: OscValue): string {
  if (typeof value === 'number') return String(Math.round(value * 1000) / 1000);
  if (typeof value === 'string') return `“${value.slice(0, 60)}”`;
  return value instanceof Uint8Array ? `${value.length} bytes` : String(value);
}
