import fc from 'fast-check';
import { decodeOsc, encodeOsc, type OscValue } from '.';

const hex = (text: string) => Uint8Array.from(text.match(/../g)!, (pair) => parseInt(pair, 16));
/** The second and third of the examples in the specification. */
const FOO = hex('2f666f6f000000002c696973666600000000' + '03e8ffffffff68656c6c6f0000003f9df3b640b5b22d');
const OSCILLATOR = hex('2f6f7363696c6c61746f722f342f6672657175656e6379002c66000043dc0000');

test('the examples of the specification, byte for byte', () => {
  expect(encodeOsc('/oscillator/4/frequency', 'f', [440])).toEqual(OSCILLATOR);
  expect(encodeOsc('/foo', 'iisff', [1000, -1, 'hello', 1.234, 5.678])).toEqual(FOO);
  expect(decodeOsc(FOO)).toEqual({
    kind: 'messages',
    messages: [
      {
        address: '/foo',
        types: 'iisff',
        values: [1000, -1, 'hello', expect.closeTo(1.234, 6), expect.closeTo(5.678, 6)],
      },
    ],
  });
});

const argument = fc.oneof(
  fc.integer({ min: -(2 ** 31), max: 2 ** 31 - 1 }).map((value) => ['i', value] as const),
  fc.double({ noNaN: true }).map((value) => ['d', value] as const),
  fc.string({ unit: 'grapheme' }).map((value) => ['s', value.replaceAll('\0', '')] as const),
  fc.uint8Array({ maxLength: 9 }).map((value) => ['b', value] as const),
  fc.constantFrom(['T', true] as const, ['F', false] as const, ['N', null] as const),
);
const message = fc.array(argument, { maxLength: 8 }).map((list) => {
  const types = list.map(([type]) => type).join('');
  const values = list.map(([, value]): OscValue => value);
  return { address: '/a/ünicode', types, values };
});
const bundle = (...parts: readonly Uint8Array[]): Uint8Array => {
  const head = hex('2362756e646c6500' + '0000000000000001');
  const sized = parts.flatMap((part) => [...hex(part.length.toString(16).padStart(8, '0')), ...part]);
  return Uint8Array.from([...head, ...sized]);
};

test('what is written is read back, alone and in bundles within bundles, in order', () => {
  fc.assert(
    fc.property(message, message, (one, two) => {
      const [first, second] = [one, two].map(({ address, types, values }) => encodeOsc(address, types, values));
      expect(first!.length % 4).toBe(0);
      expect(decodeOsc(first!)).toEqual({ kind: 'messages', messages: [one] });
      expect(decodeOsc(bundle(first!, bundle(second!, first!)))).toEqual({
        kind: 'messages',
        messages: [one, two, one],
      });
    }),
  );
});

test('messages of the other kinds, and old ones that name no kinds', () => {
  const bytes =
    '2f610000' + '2c6d68635354490000000000'.slice(0, 16) + '00f80000' + '0000000000000007' + '00000041' + '68690000';
  expect(decodeOsc(hex(bytes))).toEqual({
    kind: 'messages',
    messages: [{ address: '/a', types: 'mhcSTI', values: [Uint8Array.of(0, 0xf8, 0, 0), 7, 65, 'hi', true, null] }],
  });
  expect(decodeOsc(hex('2f610000'))).toEqual({
    kind: 'messages',
    messages: [{ address: '/a', types: '', values: [] }],
  });
});

test.each([
  ['nothing', new Uint8Array(0), 'no multiple of four'],
  ['five bytes', hex('2f61000000'), 'no multiple of four'],
  ['no address', hex('61620000'), 'neither an address nor a bundle'],
  ['a text without an end', hex('2f616161'), 'does not end'],
  ['no kinds', hex('2f610000' + '61000000'), 'does not say of what kind'],
  ['an unknown kind', hex('2f610000' + '2c7a0000'), 'unknown kind, “z”'],
  ['too few arguments', hex('2f610000' + '2c690000'), 'ends within its arguments'],
  ['bytes longer than the packet', hex('2f610000' + '2c620000' + 'ffffffff'), 'ends within its arguments'],
  ['a part longer than its bundle', bundle(OSCILLATOR).slice(0, -4), 'longer than the packet'],
  ['a bundle that ends early', hex('2362756e646c6500'), 'ends within its time'],
  ['bundles without end', [1, 2, 3, 4, 5].reduce<Uint8Array>((inner) => bundle(inner), OSCILLATOR), 'more than 4 deep'],
  ['too many messages', bundle(...Array.from({ length: 257 }, () => OSCILLATOR)), 'more than 256'],
])('refused with a sentence: %s', (_, bytes, why) => {
  expect(decodeOsc(bytes)).toEqual({ kind: 'bad', why: expect.stringContaining(why) });
});

test('any bytes are read or refused, never thrown at', () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 80 }), fc.boolean(), (bytes, slash) => {
      const packet = slash ? Uint8Array.of(0x2f, ...bytes) : bytes;
      expect(['messages', 'bad']).toContain(decodeOsc(packet).kind);
    }),
    { numRuns: 2000 },
  );
});

test('what cannot be written is a fault of the caller', () => {
  expect(() => encodeOsc('a', '', [])).toThrow('slash');
  expect(() => encodeOsc('/a', 'i', [])).toThrow('1 kinds for 0 values');
  expect(() => encodeOsc('/a', 'i', ['x'])).toThrow('kind “i”');
});
