// Windows that slide over a recording, and lists that grow with it.

export type Sliding = {
  readonly push: (channels: readonly Float32Array[]) => void;
  /** Half a window of silence, so that the last frames are whole. */
  readonly finish: () => void;
};

/**
 * Windows of `size` samples, each centred on its frame's moment, `perSecond` a second, over channels mixed into one.
 * @param emit lent the samples and where the window begins among them.
 */
export function slidingWindow(
  sampleRate: number,
  perSecond: number,
  size: number,
  emit: (samples: Float32Array, start: number) => void,
): Sliding {
  const buffer = new Float32Array(size * 4);
  // Half a window of silence before the start centres frame 0 on sample 0.
  let filled = size / 2;
  let first = -size / 2;
  let frame = 0;
  const middle = () => Math.round((frame * sampleRate) / perSecond);
  const drain = (until: number) => {
    while (middle() + size / 2 <= until) {
      emit(buffer, middle() - size / 2 - first);
      frame++;
    }
    const drop = Math.min(filled, Math.max(0, middle() - size / 2 - first));
    buffer.copyWithin(0, drop, filled);
    filled -= drop;
    first += drop;
  };
  const push = (channels: readonly Float32Array[]) => {
    const length = channels[0]?.length ?? 0;
    for (let i = 0; i < length;) {
      const count = Math.min(length - i, buffer.length - filled);
      buffer.fill(0, filled, filled + count);
      for (const channel of channels) addTo(buffer, filled, channel, i, count, 1 / channels.length);
      filled += count;
      i += count;
      drain(first + filled);
    }
  };
  return { push, finish: () => push([new Float32Array(size / 2)]) };
}

// The loop over samples stands outside: inside, what it shares with the window is looked up again for each sample.

/** Adds a share of some samples. */
export function addTo(
  out: Float32Array,
  at: number,
  from: Float32Array,
  start: number,
  count: number,
  share: number,
): void {
  for (let k = 0; k < count; k++) out[at + k]! += from[start + k]! * share;
}

export type Growing<T> = {
  readonly add: (values: T) => void;
  readonly addOne: (value: number) => void;
  readonly length: () => number;
  readonly values: () => T;
};

/** A list of numbers that doubles its room as it fills. */
export function growing<T extends Float32Array<ArrayBuffer> | Uint8Array<ArrayBuffer>>(
  make: (room: number) => T,
): Growing<T> {
  let room = make(1 << 14);
  let used = 0;
  const ensure = (more: number) => {
    if (used + more <= room.length) return;
    const larger = make(room.length * 2);
    larger.set(room);
    room = larger;
  };
  return {
    add(values) {
      ensure(values.length);
      room.set(values, used);
      used += values.length;
    },
    addOne(value) {
      ensure(1);
      room[used++] = value;
    },
    length: () => used,
    values: () => room.slice(0, used) as T,
  };
}
