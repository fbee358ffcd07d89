import { bytesOf, textOf } from './text-of-bytes';

const bytes = (text: string) => Uint8Array.from(Buffer.from(text));

// RFC 4648, clause 10.
const KNOWN = [
  ['', ''],
  ['f', 'Zg=='],
  ['fo', 'Zm8='],
  ['foo', 'Zm9v'],
  ['foobar', 'Zm9vYmFy'],
] as const;

test.each(KNOWN)('%p is kept as %p, and comes back', (plain, text) => {
  expect(textOf(bytes(plain))).toBe(text);
  expect([...bytesOf(text)]).toEqual([...bytes(plain)]);
});

test('all bytes come back, also from the middle of a larger block', () => {
  const block = Uint8Array.from({ length: 1000 }, (_, i) => i % 256);
  const part = block.subarray(300, 817);
  expect([...bytesOf(textOf(part))]).toEqual([...part]);
});

test('a browser that can do it is asked, and what it wrote is read by one that cannot', () => {
  const block = Uint8Array.from({ length: 256 }, (_, i) => i);
  const packs = Object.assign(Uint8Array.from(block), { toBase64: () => Buffer.from(block).toString('base64') });
  expect([...bytesOf(textOf(packs))]).toEqual([...block]);
  const unpacks = Uint8Array as { fromBase64?: (text: string) => Uint8Array };
  unpacks.fromBase64 = (text) => Uint8Array.from(Buffer.from(text, 'base64'));
  try {
    expect([...bytesOf(textOf(block))]).toEqual([...block]);
  } finally {
    delete unpacks.fromBase64;
  }
});

test('what is no base64 is refused', () => {
  expect(() => bytesOf('abc')).toThrow();
});
