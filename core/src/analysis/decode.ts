// Sound from a file's bytes, a slice at a time, so that 70 minutes fit and a user can stop it.

import { FLACDecoder } from '@wasm-audio-decoders/flac';
import { OggVorbisDecoder } from '@wasm-audio-decoders/ogg-vorbis';
import { MPEGDecoder } from 'mpg123-decoder';
import { failed, ok, type Problem, type Result } from '../problem';
import { isAiff, wavOfAiff } from './aiff';
import { behindTag, fromFirstFrame } from './lead';
import { packedAs } from './packed';
import { isWav, wavReader } from './wav';

export type AudioType = 'wav' | 'flac' | 'mp3' | 'ogg';

/** Sound as it comes: one array per channel, equal lengths, -1…1. Valid only during the call. */
export type TakeSound = (channels: readonly Float32Array[], sampleRate: number) => void;

/** What the host does between slices: shows progress (0…1), lets other work run, and says whether to stop. */
export type Between = (progress: number) => Promise<'go-on' | 'stop'>;

type Decoded = {
  readonly channelData: readonly Float32Array[];
  readonly sampleRate: number;
  readonly errors?: readonly { readonly message: string }[];
};
type SliceDecoder = {
  readonly decode: (bytes: Uint8Array) => Decoded | Promise<Decoded>;
  readonly flush: () => Promise<Decoded | undefined>;
  readonly free: () => void;
};

const SLICE = 1 << 17;

/** What can be music, in hertz: speech of a telephone to the fastest converters. A damaged head says anything. */
const RATES = { least: 1000, most: 768_000 };

/** What the head of a coded file says its sample rate is; undefined where it does not say. */
function saidRate(type: AudioType, bytes: Uint8Array): number | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  // STREAMINFO follows the mark and its block header: 20 bits from the tenth byte on (RFC 9639, clause 8.2).
  if (type === 'flac' && bytes.length >= 42) return (view.getUint32(18) >>> 12) & 0xfffff;
  if (type !== 'ogg') return undefined;
  // The identification header is the first packet: 1, “vorbis”, version, channels, rate (Vorbis I, clause 4.2.2).
  for (let at = 0; at + 16 <= Math.min(bytes.length, 300); at++)
    if (bytes[at] === 1 && String.fromCharCode(...bytes.subarray(at + 1, at + 7)) === 'vorbis')
      return view.getUint32(at + 12, true);
  return undefined;
}

const rateWrong = (rate: number | undefined): boolean =>
  rate !== undefined && (rate < RATES.least || rate > RATES.most);

/** What kind of audio the bytes are, from their own first bytes; the file's name is not asked. AIFF is read as WAV. */
export function audioTypeOf(all: Uint8Array): AudioType | undefined {
  const bytes = behindTag(all);
  const text = (at: number, length: number) => String.fromCharCode(...bytes.subarray(at, at + length));
  if (isWav(bytes)) return 'wav';
  if (text(0, 4) === 'fLaC') return 'flac';
  if (text(0, 4) === 'OggS') return 'ogg';
  if (text(0, 3) === 'ID3') return 'mp3';
  // MPEG audio frame sync: eleven set bits, then no reserved version, layer III (ISO/IEC 11172-3, clause 2.4.1.3).
  const sync = bytes.length > 3 && bytes[0] === 0xff && (bytes[1]! & 0xe6) === 0xe2 && (bytes[1]! & 0x18) !== 0x08;
  return sync && (bytes[2]! & 0xf0) !== 0xf0 && (bytes[2]! & 0x0c) !== 0x0c ? 'mp3' : undefined;
}

/**
 * Decodes a whole file into `take`, slice by slice.
 * @param name what to call the file in a problem's words.
 * @returns the type, sample rate and length; or why not. Sound that came before a problem has already been taken.
 */
export async function decodeAudio(
  all: Uint8Array,
  name: string,
  take: TakeSound,
  between: Between,
): Promise<Result<{ readonly type: AudioType; readonly sampleRate: number; readonly seconds: number }>> {
  if (all.length === 0) return failed({ code: 'empty-file', name });
  if (isAiff(all)) {
    const wav = wavOfAiff(all, name);
    return wav.ok ? decodeAudio(wav.value, name, take, between) : wav;
  }
  const bytes = behindTag(all);
  const type = audioTypeOf(bytes);
  const packed = type === 'flac' || type === 'mp3' ? undefined : packedAs(bytes);
  if (packed) return failed({ code: 'audio-broken', name, detail: `it is ${packed}, which Hovlix does not unpack` });
  if (!type) {
    const music = fromFirstFrame(bytes);
    return music ? decodeAudio(music, name, take, between) : failed({ code: 'not-audio', name });
  }
  const said = saidRate(type, bytes);
  const wrongRate = (rate: number) =>
    failed({ code: 'audio-broken', name, detail: `its sample rate of ${rate} Hz cannot be` } as const);
  // Before the decoder sees it: it takes memory by the rate.
  if (rateWrong(said)) return wrongRate(said!);
  let sampleRate = 0;
  let samples = 0;
  const counted: TakeSound = (channels, rate) => {
    if (!channels[0]?.length) return;
    if (rateWrong(rate)) throw new RangeError(`its sample rate of ${rate} Hz cannot be`);
    sampleRate = rate;
    samples += channels[0].length;
    take(channels, rate);
  };
  const problem =
    type === 'wav'
      ? await decodeWav(bytes, name, counted, between)
      : await decodeCoded(type, bytes, name, counted, between);
  if (problem) return failed(problem);
  if (samples === 0) return failed({ code: 'cut-short', name, detail: 'no sound could be decoded' });
  return ok({ type, sampleRate, seconds: samples / sampleRate });
}

async function decodeWav(
  bytes: Uint8Array,
  name: string,
  take: TakeSound,
  between: Between,
): Promise<Problem | undefined> {
  const reader = wavReader(bytes, name);
  if (!reader.ok) return reader.problem;
  const { frames, sampleRate, read } = reader.value;
  for (let at = 0; at < frames; at += SLICE) {
    take(read(at, Math.min(frames, at + SLICE)), sampleRate);
    if ((await between(at / frames)) === 'stop') return { code: 'cancelled' };
  }
  return undefined;
}

async function decodeCoded(
  type: Exclude<AudioType, 'wav'>,
  bytes: Uint8Array,
  name: string,
  take: TakeSound,
  between: Between,
): Promise<Problem | undefined> {
  const decoder = await decoderFor(type);
  let heard = false;
  let lastError = '';
  const hand = (decoded: Decoded | undefined) => {
    if (!decoded) return;
    lastError = decoded.errors?.at(-1)?.message ?? lastError;
    if (!decoded.channelData[0]?.length) return;
    heard = true;
    take(decoded.channelData, decoded.sampleRate);
  };
  try {
    for (let at = 0; at < bytes.length; at += SLICE) {
      hand(await decoder.decode(bytes.subarray(at, at + SLICE)));
      if ((await between(at / bytes.length)) === 'stop') return { code: 'cancelled' };
    }
    hand(await decoder.flush());
  } catch (error) {
    return { code: 'audio-broken', name, detail: error instanceof Error ? error.message : String(error) };
  } finally {
    decoder.free();
  }
  if (heard) return undefined;
  return { code: 'cut-short', name, detail: lastError || 'there is no whole block of sound in it' };
}

async function decoderFor(type: Exclude<AudioType, 'wav'>): Promise<SliceDecoder> {
  if (type === 'mp3') {
    const decoder = new MPEGDecoder();
    await decoder.ready;
    return { decode: (slice) => decoder.decode(slice), flush: async () => undefined, free: () => decoder.free() };
  }
  const decoder = type === 'flac' ? new FLACDecoder() : new OggVorbisDecoder();
  await decoder.ready;
  return {
    decode: (slice) => decoder.decode(slice),
    flush: () => decoder.flush(),
    free: () => decoder.free(),
  };
}
