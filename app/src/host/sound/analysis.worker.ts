// Decodes and analyses a file away from the page.

import { sha256 } from '@noble/hashes/sha2.js';
import {
  analyse,
  audioTypeOf,
  confidenceOf,
  doubtfulPassages,
  fromFirstFrame,
  gridOf,
  isAiff,
  packedAs,
  rateOfPacked,
  otherGrid,
  readHeard,
  READINGS,
  readTags,
  tagChunks,
  wavOfAiff,
  wavOfSound,
  writeHeard,
} from '@hovlix/core/analysis';
import { offsetBetween, writeEnvelopes } from '@hovlix/core/music';
import { failed, ok, type Result } from '@hovlix/core/problem';
import type { FromAnalysis, Listened, Readings, ToAnalysis, Unpacked } from './analysis-messages';

let cancelled = false;
const say = (message: FromAnalysis) => self.postMessage(message);
/** Lets a cancel message in: messages are only heard between tasks. */
const breathe = () => new Promise<void>((resolve) => setTimeout(resolve, 0));

self.onmessage = async (event: MessageEvent<ToAnalysis>) => {
  const message = event.data;
  if (message.type === 'unpacked') return unpacked(message.sound);
  if (message.type === 'cancel') return void (cancelled = true);
  if (message.type === 'compare')
    return say({ type: 'compared', offset: offsetBetween(message.before, message.after) });
  if (message.type === 'read') return say({ type: 'readings', readings: readingsOf(message.heard, message.name) });
  const { file } = message;
  try {
    const kept = await asKept(file);
    if (!kept.ok) say({ type: 'done', result: kept });
    else if (message.type === 'digest') say({ type: 'digest', hash: hashOf(kept.value.bytes), file: kept.value.file });
    else say({ type: 'done', result: await listenedTo(kept.value) });
  } catch (error) {
    // A file that vanished half-way, or one that nobody foresaw: it is said, and the next one has its turn.
    const detail = error instanceof Error ? error.message : String(error);
    say({ type: 'done', result: failed({ code: 'audio-broken', name: file.name, detail }) });
  }
};

type KeptFile = { readonly file: File; readonly bytes: Uint8Array };

/** A file as it is to be kept: one that few browsers play becomes one that all do, with the same sound. */
async function asKept(file: File): Promise<Result<KeptFile>> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const as = (wav: Uint8Array<ArrayBuffer>) => ok({ file: new File([wav], file.name), bytes: wav });
  if (isAiff(bytes)) {
    const wav = wavOfAiff(bytes, file.name);
    return wav.ok ? as(wav.value) : wav;
  }
  // Browsers do not agree on when music begins that has something else before it.
  const music = audioTypeOf(bytes) || packedAs(bytes) ? undefined : fromFirstFrame(bytes);
  if (music) return as(music.slice());
  const packed = packedAs(bytes);
  const sound = packed ? await unpackedByThePage(rateOfPacked(bytes)) : 'unknown';
  if (sound === 'unknown') return ok({ file, bytes });
  if (sound === 'too long')
    return failed({
      code: 'audio-broken',
      name: file.name,
      detail: `it is ${packed} and lasts more than half an hour`,
    });
  return as(wavOfSound(sound.channels, sound.rate, tagChunks(await readTags(bytes, navigator.language))));
}

let unpacked: (sound: Unpacked) => void = () => undefined;
function unpackedByThePage(rate: number): Promise<Unpacked> {
  const answer = new Promise<Unpacked>((resolve) => (unpacked = resolve));
  say({ type: 'unpack', rate });
  return answer;
}

async function listenedTo({ file, bytes }: KeptFile): Promise<Result<Listened>> {
  const hash = hashOf(bytes);
  const result = await analyse(bytes, file.name, async (progress) => {
    say({ type: 'progress', progress });
    await breathe();
    return cancelled ? 'stop' : 'go-on';
  });
  if (!result.ok) return result;
  const { peaks, envelopes, heard, ...analysis } = result.value;
  return ok({
    hash,
    file,
    tags: await readTags(bytes, navigator.language),
    analysis,
    sure: confidenceOf(heard, analysis),
    kept: { peaks, envelopes: writeEnvelopes(envelopes), heard: writeHeard(heard) },
  });
}

function readingsOf(bytes: Uint8Array, name: string): Result<Readings> {
  const read = readHeard(bytes, name);
  if (!read.ok) return read;
  const heard = read.value;
  const now = gridOf(heard);
  const others = READINGS.map((reading) => ({ reading, grid: otherGrid(heard, now, reading) }));
  return ok({ now, others: others.filter(({ grid }) => grid.found), doubtful: doubtfulPassages(heard, now) });
}

/** The browser's own digest is only there under https or on this computer, not for a phone in a hall. */
const hashOf = (bytes: Uint8Array): string =>
  Array.from(sha256(bytes), (byte) => byte.toString(16).padStart(2, '0')).join('');
