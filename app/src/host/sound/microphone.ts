// The microphone of this screen: heard here, in sixteen bands and strokes, and told to the conductor.

import { createStore, type StoreApi } from 'zustand/vanilla';
import { binsOf, drumEar, DRUMS, loudnessByte, LOUDNESS_BANDS } from '@hovlix/core/music';
import type { Conducting } from '../conduct/conduct';
import { localSeconds } from '../conduct/local-clock';

export type MicrophoneState = {
  readonly state: 'off' | 'asking' | 'on';
  /** Why it could not be heard, in a sentence. */
  readonly why: string | null;
};

export type Microphone = {
  readonly store: StoreApi<MicrophoneState>;
  readonly start: () => Promise<void>;
  readonly stop: () => void;
};

/** A moment every thirtieth of a second: quicker than the eye, and little for the log. */
const MOMENT_MS = 1000 / 30;
const WINDOW = 2048;
/** Power of a sine at full scale under the Blackman window of an AnalyserNode, over the bins it is spread to. */
const FULL_SCALE = 0.21 ** 2 * 1.73;

export function microphone(link: Conducting): Microphone {
  const store = createStore<MicrophoneState>(() => ({ state: 'off', why: null }));
  let end = () => undefined as void;
  /** Counts what was wished: a microphone that is granted after it was switched off again stays off. */
  let wish = 0;

  const stop = (why: string | null = null) => {
    wish++;
    end();
    end = () => undefined;
    store.setState({ state: 'off', why });
  };

  const start = async (): Promise<void> => {
    if (store.getState().state !== 'off') return;
    if (!navigator.mediaDevices) return stop(NOT_HERE);
    store.setState({ state: 'asking', why: null });
    const mine = ++wish;
    let stream: MediaStream;
    try {
      stream = await navigator.mediaDevices.getUserMedia({
        // Music, not speech: nothing may be taken out of it.
        audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
      });
    } catch (error) {
      return mine === wish ? stop(wordsFor(error)) : undefined;
    }
    if (mine !== wish) return stream.getTracks().forEach((track) => track.stop());
    const context = new AudioContext();
    const analyser = new AnalyserNode(context, { fftSize: WINDOW, smoothingTimeConstant: 0 });
    new MediaStreamAudioSourceNode(context, { mediaStream: stream }).connect(analyser);
    const ear = drumEar();
    const decibels = new Float32Array(analyser.frequencyBinCount);
    const bins = binsOf(context.sampleRate, WINDOW);
    const timer = setInterval(() => {
      analyser.getFloatFrequencyData(decibels);
      const levels = levelsOf(decibels, bins);
      const heard = ear.hear(levels, 0, localSeconds());
      const strokes = Object.fromEntries(DRUMS.flatMap((drum) => (heard[drum] > 0 ? [[drum, heard[drum]]] : [])));
      link.act({ type: 'heard', levels, ...(Object.keys(strokes).length > 0 ? { strokes } : {}) });
    }, MOMENT_MS);
    end = () => {
      clearInterval(timer);
      for (const track of stream.getTracks()) track.stop();
      void context.close();
    };
    for (const track of stream.getTracks())
      track.onended = () => stop('The microphone is gone. Plug it in again, then turn it on.');
    store.setState({ state: 'on', why: null });
  };

  return { store, start, stop: () => stop() };
}

function levelsOf(decibels: Float32Array, bins: readonly number[]): number[] {
  return Array.from({ length: LOUDNESS_BANDS }, (_, band) => {
    let power = 0;
    for (let bin = bins[band]!; bin < bins[band + 1]!; bin++) power += 10 ** (decibels[bin]! / 10);
    return loudnessByte(power / FULL_SCALE);
  });
}

const NOT_HERE = 'A microphone can only be heard on the computer Hovlix runs on: browsers ask for a safe connection.';

function wordsFor(error: unknown): string {
  const name = error instanceof Error ? error.name : '';
  if (name === 'NotAllowedError')
    return 'The microphone was refused. Allow it beside the address of this page, then turn it on again.';
  if (name === 'NotFoundError') return 'There is no microphone on this device. Plug one in, then turn it on.';
  return `The microphone cannot be heard (${error instanceof Error ? error.message : String(error)}).`;
}
