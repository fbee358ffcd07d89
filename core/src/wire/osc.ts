// Open Sound Control 1.0: messages with an address and arguments, alone or in bundles, in UDP packets.
// Source: M. Wright, “The Open Sound Control 1.0 Specification”, 2002.

/** An argument: numbers of all kinds, texts, bytes (`b`, and the four of a MIDI message), true, false, and nothing. */
export type OscValue = number | string | boolean | null | Uint8Array;

export type OscMessage = {
  /** Begins with a slash. */
  readonly address: string;
  /** A letter an argument: i f s b, and of the others h d t S c r m T F N I. */
  readonly types: string;
  readonly values: readonly OscValue[];
};

export type OscPacket =
  | { readonly kind: 'messages'; readonly messages: readonly OscMessage[] }
  | { readonly kind: 'bad'; readonly why: string };

/** Bundles within bundles go no deeper; a packet holds no more messages. */
const DEEPEST = 4;
const MOST_MESSAGES = 256;
const BUNDLE = '#bundle';

class BadOsc extends Error {}

/** The messages of a packet, those of bundles in their order; or what is wrong with it, and at which byte. */
export function decodeOsc(bytes: Uint8Array): OscPacket {
  const messages: OscMessage[] = [];
  try {
    take(bytes, 0, bytes.length, 0, messages);
  } catch (error) {
    if (error instanceof BadOsc) return { kind: 'bad', why: error.message };
    throw error;
  }
  return { kind: 'messages', messages };
}

function take(bytes: Uint8Array, from: number, end: number, depth: number, into: OscMessage[]): void {
  if (end - from < 4 || (end - from) % 4 !== 0) throw new BadOsc(`at byte ${from}, its length is no multiple of four`);
  if (bytes[from] === 0x2f) {
    if (into.length >= MOST_MESSAGES) throw new BadOsc(`it holds more than ${MOST_MESSAGES} messages`);
    into.push(messageIn(bytes, from, end));
    return;
  }
  const [name, after] = text(bytes, from, end);
  if (name !== BUNDLE) throw new BadOsc(`at byte ${from} there is neither an address nor a bundle`);
  if (depth >= DEEPEST) throw new BadOsc(`bundles lie more than ${DEEPEST} deep`);
  // Eight bytes tell when it is meant for; what has come is meant for now.
  let at = after + 8;
  if (at > end) throw new BadOsc('the bundle ends within its time');
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  while (at < end) {
    const size = at + 4 <= end ? view.getUint32(at) : Infinity;
    if (at + 4 + size > end) throw new BadOsc(`at byte ${at}, a part is said to be longer than the packet`);
    take(bytes, at + 4, at + 4 + size, depth + 1, into);
    at += 4 + size;
  }
}

function messageIn(bytes: Uint8Array, from: number, end: number): OscMessage {
  const [address, afterAddress] = text(bytes, from, end);
  if (afterAddress === end) return { address, types: '', values: [] };
  const [tags, afterTags] = text(bytes, afterAddress, end);
  if (!tags.startsWith(',')) throw new BadOsc(`“${address}” does not say of what kind its arguments are`);
  const types = tags.slice(1);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = afterTags;
  const fixed = (size: number): number => {
    if (at + size > end) throw new BadOsc(`“${address}” ends within its arguments`);
    at += size;
    return at - size;
  };
  const values = [...types].map((type): OscValue => {
    switch (type) {
      case 'i':
        return view.getInt32(fixed(4));
      case 'f':
        return view.getFloat32(fixed(4));
      case 'd':
        return view.getFloat64(fixed(8));
      case 'h':
        return Number(view.getBigInt64(fixed(8)));
      case 't':
        return Number(view.getBigUint64(fixed(8)));
      case 'c':
      case 'r':
        return view.getUint32(fixed(4));
      case 'm': {
        const start = fixed(4);
        return bytes.slice(start, start + 4);
      }
      case 's':
      case 'S': {
        const [value, after] = text(bytes, at, end);
        at = after;
        return value;
      }
      case 'b': {
        const size = view.getUint32(fixed(4));
        const start = fixed(Math.ceil(size / 4) * 4);
        return bytes.slice(start, start + size);
      }
      case 'T':
        return true;
      case 'F':
        return false;
      case 'N':
      case 'I':
        return null;
      default:
        throw new BadOsc(`“${address}” has an argument of an unknown kind, “${type}”`);
    }
  });
  return { address, types, values };
}

/** A text that ends with a zero byte and is filled up to four; and where what follows begins. */
function text(bytes: Uint8Array, from: number, end: number): readonly [string, number] {
  let zero = from;
  while (zero < end && bytes[zero] !== 0) zero++;
  const after = from + (Math.floor((zero - from) / 4) + 1) * 4;
  if (zero >= end || after > end) throw new BadOsc(`at byte ${from}, a text does not end`);
  return [new TextDecoder().decode(bytes.subarray(from, zero)), after];
}

/**
 * A message as a packet.
 * @param types a letter an argument: i (32 bits), f, d, s, b, T, F or N. Throws a RangeError for others, for an address
 * that does not begin with a slash, and where there are more or fewer values than letters (T, F and N take one, too).
 */
export function encodeOsc(address: string, types: string, values: readonly OscValue[]): Uint8Array<ArrayBuffer> {
  if (!address.startsWith('/')) throw new RangeError(`An address begins with a slash, got: ${address}`);
  if (types.length !== values.length) throw new RangeError(`${types.length} kinds for ${values.length} values`);
  const parts = [padded(address), padded(`,${types}`), ...values.map((value, i) => argument(types[i]!, value))];
  const bytes = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    bytes.set(part, at);
    at += part.length;
  }
  return bytes;
}

function argument(type: string, value: OscValue): Uint8Array {
  const view = new DataView(new ArrayBuffer(type === 'd' ? 8 : 4));
  if (type === 'i' && typeof value === 'number') view.setInt32(0, value);
  else if (type === 'f' && typeof value === 'number') view.setFloat32(0, value);
  else if (type === 'd' && typeof value === 'number') view.setFloat64(0, value);
  else if (type === 's' && typeof value === 'string') return padded(value);
  else if (type === 'b' && value instanceof Uint8Array) {
    const bytes = new Uint8Array(4 + Math.ceil(value.length / 4) * 4);
    new DataView(bytes.buffer).setUint32(0, value.length);
    bytes.set(value, 4);
    return bytes;
  } else if (type === 'T' || type === 'F' || type === 'N') return new Uint8Array(0);
  else throw new RangeError(`No argument of kind “${type}” can be made of ${typeof value}`);
  return new Uint8Array(view.buffer);
}

function padded(value: string): Uint8Array {
  const bytes = new TextEncoder().encode(value);
  const full = new Uint8Array((Math.floor(bytes.length / 4) + 1) * 4);
  full.set(bytes);
  return full;
}
