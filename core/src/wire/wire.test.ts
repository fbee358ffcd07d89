import { protocol } from 'artnet-protocol';
import fc from 'fast-check';
import { Packet } from 'sacn';
import { seconds, universe } from '../units';
import {
  decodeArtNet,
  decodeSacn,
  encodeArtDmx,
  encodeArtPoll,
  encodeArtPollReply,
  encodeArtSync,
  encodeSacn,
  encodeSacnSync,
  isOutOfOrder,
  nextArtSequence,
  pcapHeader,
  pcapRecord,
  sacnGroup,
  updateSacn,
} from '.';

const cid = Uint8Array.from({ length: 16 }, (_, i) => i + 1);
const levels = fc.uint8Array({ minLength: 1, maxLength: 512 });
const packet = (data: Partial<Parameters<typeof encodeSacn>[0]> = {}) =>
  encodeSacn({
    cid,
    sourceName: 'Hovlix',
    priority: 120,
    sync: 7,
    sequence: 9,
    preview: false,
    terminated: false,
    universe: universe(258),
    levels: Uint8Array.of(1, 2, 255),
    ...data,
  });

describe('sACN', () => {
  test('what is written is read back', () => {
    fc.assert(
      fc.property(
        levels,
        fc.integer({ min: 1, max: 63999 }),
        fc.nat(255),
        fc.nat(200),
        fc.boolean(),
        (values, number, sequence, priority, terminated) => {
          const read = decodeSacn(
            packet({ levels: values, universe: universe(number), sequence, priority, terminated }),
          );
          expect(read).toEqual({
            kind: 'data',
            data: {
              cid,
              sourceName: 'Hovlix',
              priority,
              sync: 7,
              sequence,
              preview: false,
              terminated,
              universe: number,
              levels: values,
            },
          });
        },
      ),
      { seed: 2, numRuns: 60 },
    );
  });

  test('an independent library reads the same universe, source, priority and levels', () => {
    const full = Uint8Array.from({ length: 512 }, (_, i) => (i * 7) & 255);
    const read = new Packet(Buffer.from(packet({ levels: full })), '127.0.0.1');
    expect(read).toMatchObject({ universe: 258, sequence: 9, priority: 120, sourceName: 'Hovlix' });
    // It gives percent by channel, leaving zeros out.
    for (const channel of [2, 100, 512])
      expect(read.payload[channel] ?? 0).toBeCloseTo((full[channel - 1]! / 255) * 100, 1);
  });

  test('the bytes of ANSI E1.31-2018, table 4-1, at their places', () => {
    const bytes = packet();
    expect(bytes).toHaveLength(129);
    expect([...bytes.subarray(0, 4)]).toEqual([0, 0x10, 0, 0]);
    expect(Buffer.from(bytes.subarray(4, 16)).toString('latin1')).toBe('ASC-E1.17\0\0\0');
    // Flags and length of the root, framing and DMP layers: 7, then bytes from there to the end.
    expect([16, 38, 115].map((at) => (bytes[at]! << 8) | bytes[at + 1]!)).toEqual([
      0x7000 | 113,
      0x7000 | 91,
      0x7000 | 14,
    ]);
    expect([...bytes.subarray(108, 129)]).toEqual([
      120, 0, 7, 9, 0, 1, 2, 0x70, 14, 2, 0xa1, 0, 0, 0, 1, 0, 4, 0, 1, 2, 255,
    ]);
    expect(sacnGroup(258)).toBe('239.255.1.2');
  });

  test('a packet is renewed in place and says goodbye', () => {
    const bytes = packet();
    updateSacn(bytes, 10, Uint8Array.of(4, 5, 6), true);
    expect(decodeSacn(bytes)).toMatchObject({
      kind: 'data',
      data: { sequence: 10, terminated: true, levels: Uint8Array.of(4, 5, 6) },
    });
  });

  test('sync packets', () => {
    expect(decodeSacn(encodeSacnSync({ cid, sequence: 3, universe: 63999 }))).toEqual({
      kind: 'sync',
      sync: { cid, sequence: 3, universe: 63999 },
    });
  });

  test('late packets by clause 6.7.2: up to 19 behind are dropped, more is a source that began anew', () => {
    expect(isOutOfOrder(5, 5)).toBe(true);
    expect(isOutOfOrder(250, 5)).toBe(true);
    expect(isOutOfOrder(5, 250)).toBe(false);
    expect(isOutOfOrder(200, 5)).toBe(false);
  });
});

describe('Art-Net', () => {
  test('what is written is read back; an odd number of levels is made even', () => {
    fc.assert(
      fc.property(levels, fc.nat(0x7fff), fc.integer({ min: 1, max: 255 }), (values, port, sequence) => {
        const read = decodeArtNet(encodeArtDmx({ sequence, physical: 0, port, levels: values }));
        expect(read).toMatchObject({ kind: 'dmx', dmx: { sequence, port } });
        const got = read.kind === 'dmx' ? read.dmx.levels : new Uint8Array();
        expect(Buffer.from(got.subarray(0, values.length)).equals(Buffer.from(values))).toBe(true);
        expect(got.length % 2).toBe(0);
      }),
      { seed: 4, numRuns: 60 },
    );
  });

  test('the bytes of an ArtDmx: opcode low byte first, length high byte first', () => {
    expect([...encodeArtDmx({ sequence: 2, physical: 0, port: 0x123, levels: Uint8Array.of(9, 8) })]).toEqual([
      0x41, 0x72, 0x74, 0x2d, 0x4e, 0x65, 0x74, 0, 0, 0x50, 0, 14, 2, 0, 0x23, 1, 0, 2, 9, 8,
    ]);
  });

  test('an independent library reads the same port, sequence and levels', () => {
    const full = Uint8Array.from({ length: 512 }, (_, i) => (i * 7) & 255);
    const read = protocol.decode(Buffer.from(encodeArtDmx({ sequence: 7, physical: 1, port: 0x123, levels: full })));
    expect(read).toMatchObject({ sequence: 7, physical: 1, universe: 0x123 });
    expect([...(read as unknown as { data: number[] }).data]).toEqual([...full]);
  });

  test('poll, its answer, and sync', () => {
    expect(decodeArtNet(encodeArtPoll())).toEqual({ kind: 'poll' });
    expect(decodeArtNet(encodeArtSync())).toEqual({ kind: 'sync' });
    const reply = {
      ip: [10, 0, 0, 7] as const,
      shortName: 'Node',
      longName: 'A node on the truss',
      outputs: [0x120, 0x121],
    };
    expect(decodeArtNet(encodeArtPollReply(reply))).toEqual({ kind: 'poll-reply', reply });
  });

  test('sequence numbers never become 0, which would switch ordering off', () => {
    expect(nextArtSequence(255)).toBe(1);
  });
});

test('whatever arrives, decoding answers and never throws', () => {
  const whole = [
    packet(),
    encodeArtDmx({ sequence: 1, physical: 0, port: 0, levels: Uint8Array.of(1, 2) }),
    encodeArtPollReply({ ip: [1, 2, 3, 4], shortName: 'x', longName: 'y', outputs: [0] }),
  ];
  fc.assert(
    fc.property(
      fc.constantFrom(...whole),
      fc.array(fc.tuple(fc.nat(300), fc.nat(255)), { maxLength: 6 }),
      fc.nat(300),
      (bytes, changes, length) => {
        const broken = bytes.slice(0, length);
        for (const [at, value] of changes) if (at < broken.length) broken[at] = value;
        expect(decodeSacn(broken).kind).toBeDefined();
        expect(decodeArtNet(broken).kind).toBeDefined();
      },
    ),
    { seed: 6, numRuns: 3000 },
  );
  expect(decodeSacn(packet().subarray(0, 127))).toMatchObject({
    kind: 'bad',
    why: expect.stringContaining('holds fewer'),
  });
});

test('a capture: header, then records whose IPv4 checksum adds up', () => {
  expect(Buffer.from(pcapHeader()).readUInt32LE(0)).toBe(0xa1b2c3d4);
  const record = Buffer.from(
    pcapRecord({
      at: seconds(1.25),
      from: [127, 0, 0, 1],
      to: [239, 255, 0, 1],
      fromPort: 5568,
      toPort: 5568,
      payload: packet(),
    }),
  );
  expect([record.readUInt32LE(0), record.readUInt32LE(4), record.readUInt32LE(8)]).toEqual([
    1,
    250000,
    record.length - 16,
  ]);
  let sum = 0;
  for (let i = 30; i < 50; i += 2) sum += record.readUInt16BE(i);
  expect((sum & 0xffff) + (sum >> 16)).toBe(0xffff);
  expect([...record.subarray(16, 22)]).toEqual([1, 0, 0x5e, 127, 0, 1]);
});
