// RIFF/WAVE files. Source: Microsoft, "Multiple channel audio data and WAVE files" (2001), and RFC 2361.
// Read in place, frame by frame, because a 70-minute file must not be held twice as numbers.

import { tagAt } from '../bytes';
import { failed, ok, type Result } from '../problem';

export type WavReader = {
  readonly frames: number;
  readonly sampleRate: number;
  readonly channels: number;
  /** Samples of frames `[from, to)`, one array per channel, -1…1. */
  readonly read: (from: number, to: number) => readonly Float32Array[];
};

const PCM = 1;
const FLOAT = 3;
const EXTENSIBLE = 0xfffe;

/** Files beyond 4 GB, and those of programs that always write so, begin with RF64 or BW64 (EBU Tech 3306; ITU-R BS.2088). */
const HEADS = ['RIFF', 'RF64', 'BW64'];
/** A size that is said elsewhere, or not at all. */
const UNSAID = 0xffffffff;

export function isWav(bytes: Uint8Array): boolean {
  return HEADS.includes(tagAt(bytes, 0)) && tagAt(bytes, 8) === 'WAVE';
}

type Format = { readonly code: number; readonly channels: number; readonly rate: number; readonly bits: number };
type Found = { readonly format?: Format; readonly data?: { readonly at: number; readonly size: number } };

/** Its format and, where its sound begins, all up to there. */
function headOf(bytes: Uint8Array): Found {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let format: Format | undefined;
  let long: number | undefined;
  for (let at = 12; at + 8 <= bytes.length;) {
    const size = view.getUint32(at + 4, true);
    const kind = tagAt(bytes, at);
    if (kind === 'fmt ' && at + 24 <= bytes.length) {
      const code = view.getUint16(at + 8, true);
      format = {
        code: code === EXTENSIBLE && at + 34 <= bytes.length ? view.getUint16(at + 32, true) : code,
        channels: view.getUint16(at + 10, true),
        rate: view.getUint32(at + 12, true),
        bits: view.getUint16(at + 22, true),
      };
    }
    // The second of its sizes is that of the sound (EBU Tech 3306, “ds64”).
    if (kind === 'ds64' && at + 24 <= bytes.length) long = Number(view.getBigUint64(at + 16, true));
    if (kind === 'data') {
      const data = { at: at + 8, size: size === UNSAID ? (long ?? size) : size };
      return { ...(format ? { format } : {}), data };
    }
    at += 8 + size + (size & 1);
  }
  return format ? { format } : {};
}

/** How its sound is written; undefined where it does not say. */
export const wavFormat = (bytes: Uint8Array): Format | undefined => headOf(bytes).format;

/** A file whose sound ends early is read as far as it goes. */
export function wavReader(bytes: Uint8Array, name: string): Result<WavReader> {
  const { format, data } = headOf(bytes);
  if (!data) return failed({ code: 'cut-short', name, detail: 'it has no sound in it' });
  if (!format) return noFormat(name);
  // A recorder that lost its power wrote no size: the sound goes on to the end.
  const left = bytes.length - data.at;
  const size = data.size === 0 ? left : data.size;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  return reader(view, data.at, size, format, name);
}

const noFormat = (name: string) =>
  failed({ code: 'audio-broken', name, detail: 'its sound comes before its format' } as const);

function reader(
  view: DataView,
  start: number,
  size: number,
  { code, channels, rate, bits }: Format,
  name: string,
): Result<WavReader> {
  const sample = sampleReader(view, code, bits);
  if (!sample || channels < 1 || channels > 64 || rate < 1000 || rate > 768000)
    return failed({
      code: 'audio-broken',
      name,
      detail: `format ${code}, ${bits} bits, ${channels} channels, ${rate} Hz`,
    });
  const width = bits / 8;
  const length = Math.min(size, view.byteLength - start);
  const frames = Math.floor(length / (width * channels));
  if (frames === 0) return failed({ code: 'cut-short', name, detail: 'it has no sound in it' });
  return ok({
    frames,
    sampleRate: rate,
    channels,
    read(from, to) {
      return Array.from({ length: channels }, (_, channel) => {
        const out = new Float32Array(to - from);
        for (let i = from; i < to; i++) out[i - from] = sample(start + (i * channels + channel) * width);
        return out;
      });
    },
  });
}

function sampleReader(view: DataView, code: number, bits: number): ((at: number) => number) | undefined {
  if (code === FLOAT && bits === 32) return (at) => view.getFloat32(at, true);
  if (code === FLOAT && bits === 64) return (at) => view.getFloat64(at, true);
  if (code !== PCM) return undefined;
  if (bits === 8) return (at) => (view.getUint8(at) - 128) / 128;
  if (bits === 16) return (at) => view.getInt16(at, true) / 32768;
  if (bits === 24) return (at) => (view.getInt8(at + 2) * 65536 + view.getUint16(at, true)) / 8388608;
  if (bits === 32) return (at) => view.getInt32(at, true) / 2147483648;
  return undefined;
}
