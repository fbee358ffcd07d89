// Listens to programs and tablets that press and move over OSC, while that is wanted.

import { NO_OSC, type OscReport } from '@hovlix/core/connect';
import type { OscHearer } from '@hovlix/core/gear';
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
  readonly connections: Pick<ConnectionsStore, 'connections' | 'onChange'>;
  /** Another address than all of this computer's. */
  readonly host?: string;
};

export function followOsc({ connections, hear, host }: Start): Osc {
  let last: (Omit<NonNullable<OscReport['last']>, 'ago'> & { readonly at: Seconds }) | null = null;
  const take = (message: OscMessage, from: string, at: Seconds) => {
    const answer = hear(message, at);
    if (answer.by === 'bad') return port.refuse(answer.why);
    const address = message.address.slice(0, MOST_LETTERS);
    const did = answer.by === 'word' ? answer.did : '';
    last = { address, values: valuesInWords(message.values), from, at, by: answer.by, did };
  };
  const port = oscPort(take, host);
  const attend = () => {
    const { on, port: wanted } = connections.connections().osc ?? NO_OSC;
    if (port.listenAt(on ? wanted : undefined)) last = null;
  };
  connections.onChange(attend);
  attend();
  return {
    report() {
      if (port.listensAt() === undefined) return null;
      const told = last && (({ at, ...rest }) => ({ ...rest, ago: now() - at }))(last);
      return { last: told, ...port.troubles() };
    },
    close: port.close,
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
