"""From felt beats to seconds: steady, drifting, breathing and changing tempo."""

import numpy as np


def beat_times(piece, rng, lead):
    """Times of the beats `first_beat - 1` to `last_beat + 2` in seconds.

    `lead` is the silence before the first beat in seconds. Returns (index of the first time, times).
    """
    first, last = piece.first_beat - 1, piece.last_beat + 2
    count = last - first
    period = np.full(count, 60.0 / piece.bpm)
    for beat, factor in piece.tempo_steps.items():
        period[max(0, beat - first) :] /= factor
    if piece.feel == "band":
        period *= np.exp(_wander(count, rng, rng.uniform(0.003, 0.03), rng.uniform(8, 48)))
        if rng.random() < 0.3:
            period *= np.exp(np.linspace(0, rng.uniform(-0.05, 0.03), count))
    if piece.feel == "free":
        period *= np.exp(_wander(count, rng, rng.uniform(0.03, 0.12), rng.uniform(3, 12)))
    if piece.feel != "machine" and rng.random() < (0.25 if piece.feel == "band" else 0.6):
        beats = min(count, int(rng.integers(3, 10)))
        period[-beats:] *= np.linspace(1, rng.uniform(1.15, 1.9), beats)
    times = np.concatenate([[0.0], np.cumsum(period)])
    return first, times - times[1] + lead


def _wander(count, rng, size, smooth):
    """A random walk that returns to nothing, with standard deviation `size`, over some `smooth` beats."""
    noise = rng.standard_normal(count + 200)
    width = max(1, int(smooth))
    kernel = np.hanning(2 * width + 1)
    walk = np.convolve(noise, kernel / kernel.sum(), mode="same")[100 : 100 + count]
    spread = walk.std() or 1.0
    return walk / spread * size


def time_of(first, times, at):
    """Seconds of places in felt beats."""
    return np.interp(np.asarray(at, float) - first, np.arange(len(times)), times)
