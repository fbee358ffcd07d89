"""Log energy in 64 bands, 100 times a second: the same numbers as `core/src/music/hearing/bands.ts` computes."""

import numpy as np

RATE = 44100
FRAME_RATE = 100
BANDS = 64
SIZE = 2048
LOWEST_HZ, STEP_HZ, BANDS_IN_OCTAVE = 32.0, 21.5, 9


def centres():
    """Middle of each band in hertz, and one beyond on either side: even steps below, ninths of an octave above."""
    values = [LOWEST_HZ - STEP_HZ, LOWEST_HZ]
    while len(values) < BANDS + 2:
        values.append(max(values[-1] + STEP_HZ, values[-1] * 2 ** (1 / BANDS_IN_OCTAVE)))
    return np.array(values)


def bank(rate=RATE, size=SIZE):
    """Triangular weights, bands times bins."""
    middle, hertz = centres(), np.arange(size // 2 + 1) * rate / size
    rise = (hertz[None] - middle[:-2, None]) / (middle[1:-1] - middle[:-2])[:, None]
    fall = (middle[2:, None] - hertz[None]) / (middle[2:] - middle[1:-1])[:, None]
    return np.maximum(0, np.minimum(rise, fall)).astype(np.float32)


_BANK = bank()
_WINDOW = (0.5 - 0.5 * np.cos(2 * np.pi * np.arange(SIZE) / SIZE)).astype(np.float32)


def bands_of(sound):
    """`sound` is mono at 44,100 Hz; returns frames times bands. A frame's window is centred on its moment."""
    hop = RATE // FRAME_RATE
    padded = np.concatenate([np.zeros(SIZE // 2, np.float32), sound.astype(np.float32), np.zeros(SIZE // 2, np.float32)])
    count = (len(padded) - SIZE) // hop + 1
    out = np.empty((count, BANDS), np.float32)
    for start in range(0, count, 1000):
        rows = np.arange(start, min(count, start + 1000)) * hop
        frames = padded[rows[:, None] + np.arange(SIZE)[None]] * _WINDOW
        power = np.abs(np.fft.rfft(frames, axis=1)).astype(np.float32) ** 2
        out[start : start + len(rows)] = np.log10(1 + 1000 * np.sqrt(power @ _BANK.T) / SIZE)
    return out
