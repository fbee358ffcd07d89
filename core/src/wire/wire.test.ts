import { protocol } from 'artnet-protocol';
import fc from 'fast-check';
import { Packet } from 'sacn';
import { seconds, universe } from '../units';
import {
  decodeArtNet,
  decodeSacn,
  encodeArtDmx,
  encodeArtPoll,
  encodeArtPollReplies,
  encodeArtPollReply,
  encodeArtSync,
  encodeDmxFrame,
  encodeDmxSlots,
  encodeSacn,
  encodeSacnDiscovery,
  encodeSacnSync,
  framedReader,
  isOutOfOrder,
  nextArtSequence,
  pcapHeader,
  pcapRecord,
  plainReader,
  sacnGroup,
  updateDmx,
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

  test('a goodbye may hold no levels (clause 6.2.6); light without any, or of another start code, is not ours to show', () => {
    const none = (terminated: boolean) => {
      const bytes = packet({ levels: Uint8Array.of(0), terminated }).slice(0, 126);
      bytes[124] = 1;
      return decodeSacn(bytes);
    };
    expect(none(true)).toMatchObject({ kind: 'data', data: { terminated: true, universe: 258 } });
    expect(none(false)).toEqual({ kind: 'other' });
    const priorities = packet();
    priorities[125] = 0xdd;
    expect(decodeSacn(priorities)).toEqual({ kind: 'other' });
  });

  test('what is too much for a packet is cut or refused', () => {
    // A name of 64 bytes ends with a zero (clause 6.2.2), priorities end at 200 (6.2.3).
    const bytes = packet({ sourceName: 'é'.repeat(40), priority: 250 });
    expect([bytes[107], bytes[108]]).toEqual([0, 200]);
    expect(decodeSacn(bytes)).toMatchObject({ data: { sourceName: 'é'.repeat(31), priority: 200 } });
    expect(() => packet({ levels: new Uint8Array(0) })).toThrow('1 to 512 levels, got: 0');
    expect(() => packet({ levels: new Uint8Array(513) })).toThrow('1 to 512 levels, got: 513');
  });

  test('each letter of the ACN identifier counts', () => {
    for (let at = 4; at < 16; at++) {
      const bytes = packet();
      bytes[at]! ^= 1;
      expect(decodeSacn(bytes)).toEqual({ kind: 'bad', why: 'the ACN identifier is missing' });
    }
  });

  test('sync packets', () => {
    expect(encodeSacnSync({ cid, sequence: 3, universe: 63999 })).toHaveLength(49);
    expect(decodeSacn(encodeSacnSync({ cid, sequence: 3, universe: 63999 }))).toEqual({
      kind: 'sync',
      sync: { cid, sequence: 3, universe: 63999 },
    });
  });

  test('late packets by clause 6.7.2: up to 19 behind are dropped, more is a source that began anew', () => {
    expect(isOutOfOrder(5, 5)).toBe(true);
    expect(isOutOfOrder(250, 5)).toBe(true);
    expect(isOutOfOrder(5, 250)).toBe(false);
    expect(isOutOfOrder(100, 119)).toBe(true);
    expect(isOutOfOrder(100, 120)).toBe(false);
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
    const whole = { ...reply, inputs: [], role: 'node' };
    expect(decodeArtNet(encodeArtPollReply(reply))).toEqual({ kind: 'poll-reply', reply: whole });
    const ours = encodeArtPollReply({ ...reply, role: 'controller' });
    expect(decodeArtNet(ours)).toMatchObject({ reply: { role: 'controller' } });
  });

  test('a reply says which ports take light from the network and which put it there, at their places in ArtPollReply', () => {
    const who = { ip: [10, 0, 0, 7] as const, shortName: 'Hovlix', longName: 'Ours' };
    const [takes, puts, more] = encodeArtPollReplies(who, [0x123, 0x121], [0x7ffe, 5, 6, 7, 8, 9, 5]);
    // NumPorts, PortTypes, GoodInput, GoodOutput, SwIn, SwOut; net, sub-net; style; BindIndex.
    const places = [173, 174, 175, 178, 182, 186, 190, 191, 18, 19, 200, 211];
    expect(places.map((at) => takes![at])).toEqual([2, 0x80, 0x80, 0, 0x80, 0, 1, 3, 1, 2, 0, 1]);
    expect(places.map((at) => puts![at])).toEqual([4, 0x40, 0x40, 0x80, 0, 5, 0, 0, 0, 0, 1, 2]);
    expect(takes).toHaveLength(239);
    expect(decodeArtNet(more!)).toMatchObject({ reply: { outputs: [], inputs: [9] } });
    const all = encodeArtPollReplies(who, [0x123, 0x121], [0x7ffe, 5, 6, 7, 8, 9, 5]).map(decodeArtNet);
    const named = (of: 'inputs' | 'outputs') => all.flatMap((one) => (one.kind === 'poll-reply' ? one.reply[of]! : []));
    expect(named('outputs')).toEqual([0x121, 0x123]);
    expect(named('inputs')).toEqual([5, 6, 7, 8, 9, 0x7ffe]);
    // One that neither takes nor puts anything still says who it is.
    expect(encodeArtPollReplies(who, [], []).map(decodeArtNet)).toMatchObject([
      { reply: { shortName: 'Hovlix', outputs: [], inputs: [], role: 'controller' } },
    ]);
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

describe('universe discovery', () => {
  test('lists are read back sorted and without doubles, paged by 512', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 63999 }), { maxLength: 1400 }), (numbers) => {
        const pages = encodeSacnDiscovery(cid, 'Hovlix', numbers).map(decodeSacn);
        const lists = pages.map((page) => (page.kind === 'discovery' ? page.discovery : undefined)!);
        expect(lists.flatMap((list) => list.universes)).toEqual([...new Set(numbers)].sort((a, b) => a - b));
        expect(lists.map((list) => list.page)).toEqual(lists.map((_, i) => i));
        expect(lists.every((list) => list.lastPage === lists.length - 1 && list.universes.length <= 512)).toBe(true);
      }),
    );
  });

  test('as bytes: the vectors, and the length of each layer', () => {
    const [bytes] = encodeSacnDiscovery(cid, 'Hovlix', [1, 0x1234]);
    const view = new DataView(bytes!.buffer);
    expect([bytes!.length, view.getUint32(18), view.getUint32(40), view.getUint32(114)]).toEqual([124, 8, 2, 1]);
    expect([view.getUint16(16), view.getUint16(38), view.getUint16(112)]).toEqual([0x706c, 0x7056, 0x700c]);
    expect([...bytes!.subarray(118)]).toEqual([0, 0, 0, 1, 0x12, 0x34]);
  });
});

describe('serial', () => {
  const cut = fc.array(fc.integer({ min: 1, max: 300 }), { minLength: 1, maxLength: 40 });
  /** Feeds a stream in pieces of the given sizes, over and over. */
  const feed = (reader: { take: (bytes: Uint8Array, at: number) => void }, stream: Uint8Array, sizes: number[]) => {
    for (let at = 0, n = 0; at < stream.length; n++) {
      const size = sizes[n % sizes.length]!;
      reader.take(stream.subarray(at, at + size), 0);
      at += size;
    }
  };
  const joined = (...parts: Uint8Array[]) => Uint8Array.from(parts.flatMap((part) => [...part]));

  test('a framed interface is told: 7E, label 6, length low and high, start code, levels, E7', () => {
    expect([...encodeDmxFrame(Uint8Array.of(1, 2, 3))]).toEqual([0x7e, 6, 4, 0, 0, 1, 2, 3, 0xe7]);
    const full = encodeDmxFrame(new Uint8Array(512));
    expect([full.length, full[2], full[3], full.at(-1)]).toEqual([518, 1, 2, 0xe7]);
    updateDmx(full, 'framed', new Uint8Array(512).fill(9));
    expect([full[4], full[5], full[516], full[517]]).toEqual([0, 9, 9, 0xe7]);
  });

  test('framed frames are found however the stream is cut, whatever lies between them', () => {
    fc.assert(
      fc.property(fc.array(levels, { minLength: 1, maxLength: 4 }), cut, (frames, sizes) => {
        const found: Uint8Array[] = [];
        const noise = Uint8Array.of(0, 255, 0xe7, 3);
        const stream = joined(...frames.flatMap((frame) => [noise, encodeDmxFrame(frame)]));
        feed(
          framedReader((one) => found.push(one)),
          stream,
          sizes,
        );
        expect(found.map((one) => [...one])).toEqual(frames.map((one) => [...one]));
      }),
    );
  });

  test('a cable pulled in mid-frame loses that frame and none after the next whole one', () => {
    const found: Uint8Array[] = [];
    const reader = framedReader((one) => found.push(one));
    const frame = (level: number) => encodeDmxFrame(new Uint8Array(512).fill(level));
    reader.take(frame(1).subarray(0, 200), 0);
    for (const level of [2, 3, 4]) reader.take(frame(level), 0);
    expect(found.at(-1)?.[0]).toBe(4);
    expect(found.some((one) => new Set(one).size > 1)).toBe(false);
  });

  test('plain frames are found by their length, with or without a slow zero for a break, and anew after a gap', () => {
    const found: number[] = [];
    const reader = plainReader((one) => found.push(one[0]!, one[511]!));
    const frame = (level: number) => encodeDmxSlots(new Uint8Array(512).fill(level));
    reader.take(frame(7).subarray(0, 100), 0);
    reader.take(frame(7).subarray(100), 0.001);
    reader.take(joined(Uint8Array.of(0), frame(8)), 0.03);
    reader.take(frame(9).subarray(0, 300), 0.06);
    reader.take(frame(10), 0.5);
    expect(found).toEqual([7, 7, 8, 8, 10, 10]);
    expect(reader.bad()).toBe(300);
  });
});

test('100,000 mutated packets: every one is decoded or refused, none throws', () => {
  const seeds = [
    packet(),
    encodeSacnSync({ cid, sequence: 1, universe: 7 }),
    ...encodeSacnDiscovery(cid, 'Hovlix', [1, 2, 3]),
    encodeArtDmx({ sequence: 1, physical: 0, port: 3, levels: new Uint8Array(64) }),
    encodeArtPoll(),
    encodeArtPollReply({ ip: [10, 0, 0, 1], shortName: 'n', longName: 'node', outputs: [0, 1] }),
  ];
  const kinds = new Set<string>();
  // A small generator of our own, so that a failure can be repeated.
  let chance = 20261123;
  const next = (below: number) => {
    chance = (Math.imul(chance, 1664525) + 1013904223) >>> 0;
    return chance % below;
  };
  for (let n = 0; n < 100_000; n++) {
    const bytes = Uint8Array.from(seeds[next(seeds.length)]!);
    for (let k = next(6); k >= 0; k--) bytes[next(bytes.length)] = next(256);
    const mutated = next(3) === 0 ? bytes.subarray(0, next(bytes.length + 1)) : bytes;
    for (const read of [decodeSacn(mutated), decodeArtNet(mutated)]) {
      kinds.add(read.kind);
      if (read.kind === 'data' && (read.data.levels.length < 1 || read.data.levels.length > 512))
        throw new Error('levels');
    }
  }
  expect([...kinds].sort()).toEqual(['bad', 'data', 'discovery', 'dmx', 'other', 'poll', 'poll-reply', 'sync']);
});
