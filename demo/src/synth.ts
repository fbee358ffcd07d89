// A small band made of sums: every sound is written straight into a stereo buffer.

export const SAMPLE_RATE = 32000;

export type Mix = { readonly left: Float32Array; readonly right: Float32Array };

export function silence(seconds: number): Mix {
  const length = Math.ceil(seconds * SAMPLE_RATE);
  return { left: new Float32Array(length), right: new Float32Array(length) };
}

export const hz = (note: number): number => 440 * 2 ** ((note - 69) / 12);

/** Noise that is the same on every machine: a hash of its index (Wang 2007, 32 bits). */
function noise(i: number): number {
  let x = (i ^ 61 ^ (i >>> 16)) >>> 0;
  x = (x + (x << 3)) >>> 0;
  x = (x ^ (x >>> 4)) >>> 0;
  x = Math.imul(x, 0x27d4eb2d) >>> 0;
  return ((x ^ (x >>> 15)) >>> 0) / 2147483648 - 1;
}

/** Adds `length` seconds of a voice from `at` on; `voice(t, i)` gives the sample t seconds in. `pan` -1 left … 1 right. */
function add(mix: Mix, at: number, length: number, pan: number, voice: (t: number, i: number) => number): void {
  const start = Math.round(at * SAMPLE_RATE);
  const count = Math.round(length * SAMPLE_RATE);
  const [toLeft, toRight] = [Math.sqrt((1 - pan) / 2), Math.sqrt((1 + pan) / 2)];
  for (let i = 0; i < count && start + i < mix.left.length; i++) {
    if (start + i < 0) continue;
    const value = voice(i / SAMPLE_RATE, i);
    mix.left[start + i]! += value * toLeft;
    mix.right[start + i]! += value * toRight;
  }
}

export function kick(mix: Mix, at: number, gain = 1): void {
  add(mix, at, 0.35, 0, (t, i) => {
    const phase = 2 * Math.PI * (48 * t + (110 / 28) * (1 - Math.exp(-28 * t)));
    return gain * (Math.sin(phase) * Math.exp(-9 * t) + 0.25 * noise(i) * Math.exp(-320 * t));
  });
}

export function snare(mix: Mix, at: number, gain = 1): void {
  add(mix, at, 0.28, 0.08, (t, i) => {
    const body = Math.sin(2 * Math.PI * (185 * t)) * Math.exp(-26 * t);
    return gain * (0.5 * body + 0.55 * (noise(i) - noise(i - 1) * 0.6) * Math.exp(-17 * t));
  });
}

export function clap(mix: Mix, at: number, gain = 1): void {
  for (const late of [0, 0.011, 0.021])
    add(mix, at + late, 0.2, -0.1, (t, i) => gain * 0.4 * (noise(i * 3) - noise(i * 3 - 3)) * Math.exp(-24 * t));
}

export function hat(mix: Mix, at: number, gain = 1, open = false): void {
  add(mix, at, open ? 0.3 : 0.07, 0.35, (t, i) => {
    const bright = noise(i) - 1.6 * noise(i - 1) + 0.7 * noise(i - 2);
    return gain * 0.13 * bright * Math.exp(-(open ? 11 : 60) * t);
  });
}

export function crash(mix: Mix, at: number, gain = 1): void {
  add(mix, at, 2.2, -0.3, (t, i) => gain * 0.2 * (noise(i) - 0.9 * noise(i - 1)) * Math.exp(-2.2 * t));
}

export function tom(mix: Mix, at: number, note: number, gain = 1): void {
  add(
    mix,
    at,
    0.4,
    (note - 45) / 20,
    (t) => gain * Math.sin(2 * Math.PI * hz(note) * t * (1 + 0.4 * Math.exp(-20 * t))) * Math.exp(-9 * t),
  );
}

/** A noise that rises to its end: what comes before a drop. */
export function riser(mix: Mix, at: number, length: number): void {
  let low = 0;
  add(mix, at, length, 0, (t, i) => {
    const share = t / length;
    low += (0.02 + 0.6 * share * share) * (noise(i) - low);
    return 0.5 * share * share * (noise(i) * share + low * (1 - share));
  });
}

export function bass(mix: Mix, at: number, length: number, note: number, gain = 1): void {
  let low = 0;
  const f = hz(note);
  add(mix, at, length, 0, (t) => {
    const saw = 2 * ((f * t) % 1) - 1;
    low += (0.06 + 0.12 * Math.exp(-6 * t)) * (saw - low);
    return gain * 0.55 * (low + 0.5 * Math.sin(2 * Math.PI * f * t)) * Math.min(1, t * 200) * release(t, length);
  });
}

/** A chord of soft saws. `soft` is a slow attack in seconds; 0 is plucked. */
export function chord(mix: Mix, at: number, length: number, notes: readonly number[], gain = 1, soft = 0): void {
  notes.forEach((note, n) => {
    let low = 0;
    const f = hz(note);
    const pan = notes.length > 1 ? (n / (notes.length - 1) - 0.5) * 1.2 : 0;
    add(mix, at + (soft ? 0 : n * 0.008), length, pan, (t) => {
      const saw = ((f * t) % 1) + ((f * 1.006 * t) % 1) - 1;
      low += (soft ? 0.05 : 0.05 + 0.25 * Math.exp(-5 * t)) * (saw - low);
      const attack = soft ? Math.min(1, t / soft) : Math.min(1, t * 300) * (0.35 + 0.65 * Math.exp(-3 * t));
      return gain * 0.22 * low * attack * release(t, length);
    });
  });
}

export function lead(mix: Mix, at: number, length: number, note: number, gain = 1): void {
  const f = hz(note);
  add(mix, at, length, 0.15, (t) => {
    const bend = 0.006 * Math.sin(2 * Math.PI * 5.4 * t) * Math.min(1, t * 3);
    const phase = 2 * Math.PI * f * (t + bend / 5.4 / 6);
    const wave = Math.sin(phase) + 0.35 * Math.sin(2 * phase) + 0.18 * Math.sin(3 * phase);
    return gain * 0.2 * wave * Math.min(1, t * 60) * release(t, length);
  });
}

function release(t: number, length: number): number {
  const left = length - t;
  return left > 0.03 ? 1 : Math.max(0, left / 0.03);
}

/** A room around it all (four feedback delays), then soft limiting to a peak below full scale. */
export function mastered({ left, right }: Mix, wet: number): Mix {
  for (const [buffer, times] of [
    [left, [0.0297, 0.0411, 0.0567, 0.0731]],
    [right, [0.0313, 0.0429, 0.0533, 0.0757]],
  ] as const) {
    const room = new Float32Array(buffer.length);
    for (const time of times) {
      const lag = Math.round(time * SAMPLE_RATE);
      const line = new Float32Array(buffer.length);
      for (let i = lag; i < buffer.length; i++) line[i] = buffer[i - lag]! * 0.35 + line[i - lag]! * 0.72;
      for (let i = 0; i < buffer.length; i++) room[i]! += line[i]! * 0.25;
    }
    for (let i = 0; i < buffer.length; i++) buffer[i] = Math.tanh((buffer[i]! + wet * room[i]!) * 1.1) * 0.9;
  }
  return { left, right };
}
