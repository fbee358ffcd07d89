// UDP ports that are typed, of which two listeners cannot have the same.

import { wholeNumber } from '../../ui/form';

type Listener = { readonly on: boolean; readonly port: number };

/** Reads a port that may be listened at. @param wrong what is said of the port of another listener. */
export const portBeside =
  (other: Listener, wrong: string) =>
  (text: string): { readonly value: number } | { readonly wrong: string } => {
    const read = wholeNumber(1024, 65535)(text);
    return 'value' in read && clash(other, read.value) ? { wrong } : read;
  };

export const clash = (other: Listener, port: number): boolean => other.on && other.port === port;
