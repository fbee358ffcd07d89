// The microphone of this screen: asked for, and given back. What is heard is told to the conductor.

import { createStore, type StoreApi } from 'zustand/vanilla';
import type { Conducting } from '../conduct/conduct';
import type { Hearing } from './hearing';

export type MicrophoneState = {
  readonly state: 'off' | 'asking' | 'on';
  readonly hearing: Hearing | null;
  /** Why it could not be heard, in a sentence. */
  readonly why: string | null;
};

export type Microphone = {
  readonly store: StoreApi<MicrophoneState>;
  readonly start: () => Promise<void>;
  readonly stop: () => void;
};

export function microphone(link: Conducting): Microphone {
  const store = createStore<MicrophoneState>(() => ({ state: 'off', hearing: null, why: null }));
  let end = () => undefined as void;
  /** Counts what was wished: a microphone that is granted after it was switched off again stays off. */
  let wish = 0;

  const stop = (why: string | null = null) => {
    wish++;
    end();
    end = () => undefined;
    store.setState({ state: 'off', hearing: null, why });
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
    const { listen } = await import('./listening');
    if (mine !== wish) return stream.getTracks().forEach((track) => track.stop());
    const deaf = listen(link, stream, (hearing) => store.setState({ hearing }));
    end = () => {
      deaf();
      for (const track of stream.getTracks()) track.stop();
    };
    for (const track of stream.getTracks())
      track.onended = () => stop('The microphone is gone. Plug it in again, then turn it on.');
    store.setState({ state: 'on', why: null });
  };

  return { store, start, stop: () => stop() };
}

const NOT_HERE = 'A microphone can only be heard on the computer Hovlix runs on: browsers ask for a safe connection.';

function wordsFor(error: unknown): string {
  const name = error instanceof Error ? error.name : '';
  if (name === 'NotAllowedError')
    return 'The microphone was refused. Allow it beside the address of this page, then turn it on again.';
  if (name === 'NotFoundError') return 'There is no microphone on this device. Plug one in, then turn it on.';
  return `The microphone cannot be heard (${error instanceof Error ? error.message : String(error)}).`;
}
