// A small drum set made of tones and noise, so that hits can be heard where there is no music.

type Voice = {
  /** Hertz at the stroke and as it rings out; without, no tone. */
  readonly tone?: readonly [number, number];
  /** From where on noise is let through, in hertz; without, none. */
  readonly noise?: number;
  readonly seconds: number;
  readonly loud: number;
};

const VOICES: Readonly<Record<string, Voice>> = {
  Kick: { tone: [150, 45], seconds: 0.22, loud: 0.9 },
  Snare: { tone: [220, 160], noise: 1200, seconds: 0.16, loud: 0.5 },
  'Side stick': { tone: [900, 700], seconds: 0.05, loud: 0.4 },
  Clap: { noise: 900, seconds: 0.14, loud: 0.5 },
  Hat: { noise: 7000, seconds: 0.05, loud: 0.3 },
  'Open hat': { noise: 6500, seconds: 0.3, loud: 0.3 },
  Tom: { tone: [180, 90], seconds: 0.25, loud: 0.6 },
  Crash: { noise: 4000, seconds: 1.1, loud: 0.35 },
  Ride: { tone: [420, 410], noise: 6000, seconds: 0.5, loud: 0.2 },
  Tambourine: { noise: 6000, seconds: 0.12, loud: 0.3 },
  Cowbell: { tone: [560, 545], seconds: 0.2, loud: 0.3 },
};

const NOISE_SECONDS = 1.2;
const noises = new WeakMap<BaseAudioContext, AudioBuffer>();

function noiseOf(sound: BaseAudioContext): AudioBuffer {
  const known = noises.get(sound);
  if (known) return known;
  const made = sound.createBuffer(1, Math.round(sound.sampleRate * NOISE_SECONDS), sound.sampleRate);
  const data = made.getChannelData(0);
  for (let i = 0; i < data.length; i++) data[i] = Math.random() * 2 - 1;
  noises.set(sound, made);
  return made;
}

/** @param drum its name; a note that stands for no drum sounds as itself. @param velocity 0…1. */
export function drumSound(
  sound: BaseAudioContext,
  drum: string | undefined,
  note: number,
  velocity: number,
  at: number,
): void {
  const hertz = 440 * 2 ** ((note - 69) / 12);
  const voice: Voice = (drum && VOICES[drum]) || { tone: [hertz, hertz], seconds: 0.18, loud: 0.3 };
  const ends = at + voice.seconds;
  const gain = sound.createGain();
  gain.gain.setValueAtTime(Math.max(0.001, voice.loud * velocity), at);
  gain.gain.exponentialRampToValueAtTime(0.001, ends);
  gain.connect(sound.destination);
  if (voice.tone) {
    const tone = sound.createOscillator();
    tone.frequency.setValueAtTime(voice.tone[0], at);
    tone.frequency.exponentialRampToValueAtTime(voice.tone[1], ends);
    tone.connect(gain);
    tone.start(at);
    tone.stop(ends);
  }
  if (voice.noise) {
    const noise = sound.createBufferSource();
    noise.buffer = noiseOf(sound);
    const filter = sound.createBiquadFilter();
    filter.type = 'highpass';
    filter.frequency.value = voice.noise;
    noise.connect(filter).connect(gain);
    noise.start(at);
    noise.stop(ends);
  }
}
