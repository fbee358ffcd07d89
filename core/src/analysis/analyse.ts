// From a file's bytes to what a lead sheet needs.

import { envelopesOf, type Envelopes, type StrokeTimes } from '../music';
import { failed, ok, type Result } from '../problem';
import { seconds, type Seconds } from '../units';
import { clicksIn, saidByClicks, saidOfFirsts } from './clicks';
import { decodeAudio, type AudioType, type Between } from './decode';
import { dividesInThree, middleIsStrong } from './bars';
import { featureTaker, FRAME_RATE } from './features';
import { findFeltBeats } from './felt';
import { gridOf, type Grid, type Heard } from './grid';
import { harmonyTaker } from './harmony';
import { ACTIVATION_RATE, activationsOf, drumOdds, strokesOf, type Activations } from './network';
import { onsetStrength } from './onset';
import { findSections, type FoundSection } from './sections';
import { readTags } from './tags';

export type Analysis = Grid & {
  readonly type: AudioType;
  readonly sampleRate: number;
  readonly duration: Seconds;
  /** Empty where too little was found for a form. */
  readonly sections: readonly FoundSection[];
  /** To read the same music in another way. */
  readonly heard: Heard;
  /** The loudest sample of each hundredth of a second, 0…255: for the waveform. */
  readonly peaks: Uint8Array;
  /** What lamps can follow. */
  readonly envelopes: Envelopes;
};

/** The waveform's values a second. */
export const PEAKS_PER_SECOND = FRAME_RATE;

const SHORTEST_SONG = 1;
/** How far the work has come once the sound is decoded, once its drums are heard, and once the network has run. */
const DECODED = 0.6;
const STRUCK = 0.66;
const HEARD = 0.92;

/** Decodes and analyses. Silence, noise and free speech come out with a steady 120 bpm and `found` false. */
export async function analyse(bytes: Uint8Array, name: string, between: Between): Promise<Result<Analysis>> {
  const taker = featureTaker();
  const harmony = harmonyTaker();
  const take = (channels: readonly Float32Array[], rate: number) => {
    taker.take(channels, rate);
    harmony.take(channels, rate);
  };
  const decoded = await decodeAudio(bytes, name, take, (progress) => between(progress * DECODED));
  if (!decoded.ok) return decoded;
  const { type, sampleRate, seconds: length } = decoded.value;
  if (length < SHORTEST_SONG) return failed({ code: 'audio-too-short', name, seconds: length });
  const features = taker.end();
  const drums = await drumOdds(features.bands, (part) => between(DECODED + (STRUCK - DECODED) * part));
  if (!drums) return failed({ code: 'cancelled' });
  const said = await activationsOf(features.bands, (part) => between(STRUCK + (HEARD - STRUCK) * part));
  if (!said || (await between(HEARD)) === 'stop') return failed({ code: 'cancelled' });
  const change = harmony.end(said.frames, ACTIVATION_RATE);
  const strokes = strokesOf(drums);
  const onset = onsetStrength(features.bands, features.frames);
  const { bpm } = await readTags(bytes);
  const { odds, count, path } = beatsIn(said, features.bands, onset, strokes, bpm);
  const simple = gridOf({ odds, change, compound: false, sixEight: false, count }, undefined, {}, path);
  if ((await between(0.97)) === 'stop') return failed({ code: 'cancelled' });
  const inThree = simple.found && simple.meter.length === 1 && simple.meter[0]!.numerator === 3;
  const sixEight = inThree && middleIsStrong(onset, simple.downbeats);
  const compound = sixEight || (simple.found && dividesInThree(onset, simple.beats));
  const heard = { odds, change, compound, sixEight, count };
  const grid = compound ? gridOf(heard, undefined, {}, path) : simple;
  return ok({
    type,
    sampleRate,
    duration: seconds(length),
    ...grid,
    sections: findSections(odds, features.bands, grid.downbeats),
    heard,
    peaks: Uint8Array.from(features.peaks, (peak) => Math.min(255, Math.round(peak * 255))),
    envelopes: envelopesOf(features.loudness, strokes),
  });
}

/**
 * The beats, and what is said of them: by clicks, where there is nothing else, or by the network.
 * @param bpm beats a minute by the file's tags.
 */
function beatsIn(said: Activations, bands: Uint8Array, onset: Float32Array, strokes: StrokeTimes, bpm?: number) {
  const clicks = clicksIn(bands, onset);
  if (clicks) {
    // Nobody feels clicks otherwise than they come, and no tempo is too uneven.
    return { odds: saidByClicks(said, clicks), count: 'found', path: { beats: clicks.beats, score: 1 } } as const;
  }
  const felt = findFeltBeats(said, strokes, bpm);
  const firsts =
    clicksIn(
      bands,
      onset,
      felt.path.beats.map((at) => Math.round(at * FRAME_RATE)),
    )?.firsts ?? [];
  return { ...felt, odds: saidOfFirsts(said, firsts) };
}
