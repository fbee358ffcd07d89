// What a microphone that was granted is heard as: sixteen bands and strokes for lamps, and the beat for the tempo. Fetched when it
// is turned on.

import { beatTracker } from '@hovlix/core/tracker';
import { freeBeat, type Action } from '@hovlix/core/live';
import { binsOf, drumDetector, DRUMS, loudnessByte, LOUDNESS_BANDS, SILENCE_DB } from '@hovlix/core/music';
import { beats, clamp, type Seconds } from '@hovlix/core/units';
import type { Conducting } from '../conduct/conduct';
import { useSession } from '../session';
import type { Hearing } from './hearing';

/** A moment every thirtieth of a second: quicker than the eye, and little for the log. */
const MOMENT_MS = 1000 / 30;
const WINDOW = 2048;
/** For the beat it is listened more often, and shorter. */
const BEAT_MS = 10;
const BEAT_WINDOW = 1024;
/** How often the tempo is put right, and the meter told. */
const LOOK_MS = 100;
/** Less than this, in seconds, nobody sees; and so little of a tempo. */
const DRIFT_SECONDS = 0.01;
const DRIFT_TEMPO = 0.004;
/** Power of a sine at full scale under the Blackman window of an AnalyserNode, over the bins it is spread to. */
const FULL_SCALE = 0.21 ** 2 * 1.73;
const BYTES_A_DB = 255 / -SILENCE_DB;

/** @param tell is told how loud it is, and what beat is heard, some times a second. @returns what ends it. */
export function listen(link: Conducting, stream: MediaStream, tell: (hearing: Hearing) => void): () => void {
  const context = new AudioContext();
  const source = new MediaStreamAudioSourceNode(context, { mediaStream: stream });
  const hearer = (size: number) => {
    const analyser = new AnalyserNode(context, { fftSize: size, smoothingTimeConstant: 0 });
    source.connect(analyser);
    const decibels = new Float32Array(analyser.frequencyBinCount);
    const bins = binsOf(context.sampleRate, size);
    return () => {
      analyser.getFloatFrequencyData(decibels);
      return levelsOf(decibels, bins);
    };
  };
  const [lamps, quick] = [hearer(WINDOW), hearer(BEAT_WINDOW)];
  const drums = drumDetector();
  const tracker = beatTracker();
  let loudest = 0;

  const moment = () => {
    const { micGain, micGate } = useSession.getState();
    const heard = lamps();
    loudest = Math.max(...heard);
    const open = loudest >= (micGate - SILENCE_DB) * BYTES_A_DB;
    const levels = heard.map((byte) => (open && byte > 0 ? Math.round(clamp(byte + micGain * BYTES_A_DB, 0, 255)) : 0));
    const struck = drums.hear(levels, 0, link.now());
    const strokes = Object.fromEntries(DRUMS.flatMap((drum) => (struck[drum] > 0 ? [[drum, struck[drum]]] : [])));
    link.act({ type: 'heard', levels, ...(Object.keys(strokes).length > 0 ? { strokes } : {}) });
  };

  /** What the tempo was when it was put right last: another one was tapped or typed by somebody. */
  let mine = link.store.getState().live.tempo;
  const leads = () => useSession.getState().micLeads;
  const unfollow = link.store.subscribe(({ live: { tempo } }) => {
    const own = tempo.bpm === mine.bpm && tempo.at === mine.at;
    if (own || tempo === mine) return;
    mine = tempo;
    tracker.told(tempo.bpm, tempo.at);
  });
  const correction = (now: Seconds): Extract<Action, { type: 'tempo' }> | undefined => {
    const heard = tracker.beat();
    if (!heard || !heard.sure) return undefined;
    const { live } = link.store.getState();
    const bpm = clamp(heard.bpm, 30, 400);
    const since = ((now - heard.at) * bpm) / 60;
    const share = since - Math.floor(since);
    const free = freeBeat(live, now);
    const beat = share + Math.round(free - share);
    const off = (Math.abs(free - beat) * 60) / bpm;
    if (off < DRIFT_SECONDS && Math.abs(bpm / live.tempo.bpm - 1) < DRIFT_TEMPO) return undefined;
    return { type: 'tempo', bpm, beat: { at: now, beat: beats(beat) } };
  };
  const look = () => {
    const action = leads() ? correction(link.now()) : undefined;
    if (action) {
      mine = { bpm: action.bpm, at: action.beat!.at, beat: action.beat!.beat };
      link.act(action);
    }
    const heard = tracker.beat();
    tell({ loudest: loudest / BYTES_A_DB + SILENCE_DB, beat: heard ? { bpm: heard.bpm, sure: heard.sure } : null });
  };

  const late = BEAT_WINDOW / 2 / context.sampleRate;
  const timers = [
    setInterval(moment, MOMENT_MS),
    // What a window holds sounded, on the average, when its middle did.
    setInterval(() => leads() && tracker.hear(quick(), link.now() - late), BEAT_MS),
    setInterval(look, LOOK_MS),
  ];
  return () => {
    timers.forEach(clearInterval);
    unfollow();
    void context.close();
  };
}

function levelsOf(decibels: Float32Array, bins: readonly number[]): number[] {
  return Array.from({ length: LOUDNESS_BANDS }, (_, band) => {
    let power = 0;
    for (let bin = bins[band]!; bin < bins[band + 1]!; bin++) power += 10 ** (decibels[bin]! / 10);
    return loudnessByte(power / FULL_SCALE);
  });
}
