"""From notes to sound: soundfonts, drum synthesis, mixes and what rooms, tapes and codecs do to them."""

import os
import subprocess
import tempfile

import numpy as np
from scipy.fft import irfft, next_fast_len, rfft
from scipy.io import wavfile
from scipy.signal import butter, fftconvolve, lfilter, sosfilt

from .features import RATE
from .piece import DRUM_CHANNEL
from .soundfont import play
from .timing import beat_times, time_of

FONTS = ["sf2/FluidR3_GM.sf2", "sf2/FluidR3_GM.sf2", "sf2/TimGM6mb.sf2", "sf3/MuseScore_General_Lite.sf3", "sf3/MuseScore_General_Lite.sf3", "sf2/OPL-3_FM_128M.sf2"]
KITS = ["sf2/Black_Pearl_4_LV2.sf2", "sf2/Red_Zeppelin_4_LV2.sf2"]


def render(piece, rng):
    """Returns (mono sound at 44,100 Hz, times of the beats, index of the first of them)."""
    lead = rng.uniform(0.0, 0.6) if rng.random() < 0.9 else rng.uniform(1, 4)
    first, times = beat_times(piece, rng, lead)
    when = lambda at: time_of(first, times, at)
    length = float(times[-1]) + rng.uniform(0.2, 1.5)
    size = int(length * RATE)
    drums = [note for note in piece.notes if note.channel == DRUM_CHANNEL]
    others = [note for note in piece.notes if note.channel != DRUM_CHANNEL]
    font = FONTS[int(rng.integers(0, len(FONTS)))]
    tuned = _played(others, piece.programs, when, font, size, rng)
    if piece.machine_drums:
        struck = _machine(drums, when, size, rng)
    else:
        struck = _played(drums, piece.programs, when, KITS[int(rng.integers(0, 2))] if rng.random() < 0.35 else font, size, rng)
    return _mixed(tuned, struck, size, rng), when(np.arange(piece.first_beat, piece.last_beat + 1)), when


def _played(notes, programs, when, font, size, rng):
    if not notes:
        return np.zeros(size, np.float32)
    # The drum kits have their sounds where fonts have their first melodic program.
    move = (lambda channel: 0) if font in KITS else (lambda channel: channel)
    events = []
    starts, ends = when([note.at for note in notes]), when([note.at + note.length for note in notes])
    for note, start, end in zip(notes, starts, ends):
        events.append((start, move(note.channel), note.key, max(1, min(127, note.velocity))))
        events.append((max(start + 0.01, end - 0.001), move(note.channel), note.key, 0))
    events.sort(key=lambda event: event[0])
    volumes = {channel: int(rng.integers(70, 127)) for channel in sorted({move(note.channel) for note in notes})}
    return play(events, {} if font in KITS else programs, volumes, font, size, rng.random() < 0.5)


# Drum machines --------------------------------------------------------------------------------------------------------


def _machine(notes, when, size, rng):
    """Synthesised drums: swept sines, noise, metal; a new kit for each piece."""
    out = np.zeros(size + RATE, np.float32)
    kit = {}
    for note in notes:
        if note.key not in kit:
            kit[note.key] = _drum(note.key, rng)
        at = int(float(when([note.at])[0]) * RATE)
        sound = kit[note.key] * (note.velocity / 127) ** 1.5
        if 0 <= at < size:
            out[at : at + len(sound)] += sound[: len(out) - at]
    return out[:size]


def _drum(key, rng):
    t = np.arange(int(RATE * 0.5)) / RATE
    noise = rng.standard_normal(len(t)).astype(np.float32)
    fall = lambda seconds: np.exp(-t / seconds)
    if key in (35, 36):
        top, low, sweep = rng.uniform(90, 400), rng.uniform(38, 62), rng.uniform(0.01, 0.05)
        phase = 2 * np.pi * np.cumsum(low + (top - low) * fall(sweep)) / RATE
        sound = np.sin(phase) * fall(rng.uniform(0.06, 0.3)) + rng.uniform(0, 0.3) * noise * fall(0.004)
        return np.tanh(sound * rng.uniform(1, 3)).astype(np.float32)
    if key in (38, 40):
        tone = np.sin(2 * np.pi * rng.uniform(150, 260) * t) * fall(rng.uniform(0.03, 0.1))
        return (0.5 * tone + rng.uniform(0.4, 0.9) * _band(noise, rng.uniform(400, 1500), 9000) * fall(rng.uniform(0.05, 0.2))).astype(np.float32)
    if key == 39:
        bursts = sum(np.where(t >= d, np.exp(-(t - d) / 0.008), 0) for d in (0, 0.011, 0.022)) + fall(rng.uniform(0.05, 0.15))
        return (0.5 * _band(noise, 700, rng.uniform(2500, 8000)) * bursts).astype(np.float32)
    if key in (42, 44, 46, 49, 51, 54, 69, 70, 82):
        length = {46: 0.2, 49: 0.4, 51: 0.25}.get(key, rng.uniform(0.02, 0.06))
        metal = sum(np.sign(np.sin(2 * np.pi * f * t)) for f in rng.uniform(2000, 9000, 5)) / 5
        return (0.45 * _band(noise * 0.7 + metal * rng.uniform(0, 0.7), rng.uniform(5000, 8500), 16000) * fall(length)).astype(np.float32)
    if key in (41, 43, 45, 47, 48, 50):
        low = 70 + (key - 41) * 14
        return (0.8 * np.sin(2 * np.pi * np.cumsum(low * (1 + fall(0.04))) / RATE) * fall(0.12)).astype(np.float32)
    return (0.5 * np.sin(2 * np.pi * rng.uniform(300, 1800) * t) * fall(rng.uniform(0.02, 0.06)) + 0.2 * noise * fall(0.01)).astype(np.float32)


def _band(sound, low, high):
    return sosfilt(butter(2, [low, min(high, RATE * 0.45)], "band", fs=RATE, output="sos"), sound)


# Mixes ----------------------------------------------------------------------------------------------------------------


def _level(sound):
    return float(np.sqrt(np.mean(sound**2)) + 1e-9)


def _mixed(tuned, struck, size, rng):
    if _level(tuned) < 1e-6 and rng.random() < 0.6:  # bare drums, as they are
        return (struck / (np.abs(struck).max() + 1e-9) * 10 ** (rng.uniform(-12, 0) / 20)).astype(np.float32)
    mix = tuned / _level(tuned) if _level(tuned) > 1e-6 else tuned
    if _level(struck) > 1e-6:
        if rng.random() < 0.3:  # the drums are squeezed
            struck = _compressed(struck, rng)
        mix = mix + struck / _level(struck) * 10 ** (rng.uniform(-9, 6) / 20)
    if rng.random() < 0.25:  # a voice
        mix = mix + _voice(size, rng) * rng.uniform(0.3, 1.2)
    if rng.random() < 0.15:  # a pumping mix
        mix = mix * (1 - rng.uniform(0.3, 0.9) * _follower(struck, 0.12))
    mix = mix / (np.abs(mix).max() + 1e-9)
    if rng.random() < 0.6:
        mix = _equalised(mix, rng)
    if rng.random() < 0.35:
        mix = _room(mix, rng)
    if rng.random() < 0.5:
        mix = _compressed(mix, rng)
    if rng.random() < 0.2:
        drive = rng.uniform(1.5, 8)
        mix = np.tanh(mix / (np.abs(mix).max() + 1e-9) * drive)
    if rng.random() < 0.25:
        mix = mix + _noise(size, rng) * _level(mix) * 10 ** (rng.uniform(-45, -12) / 20)
    if rng.random() < 0.06:  # a phone's microphone
        mix = _band(mix, rng.uniform(120, 350), rng.uniform(3500, 9000))
    mix = mix / (np.abs(mix).max() + 1e-9) * 10 ** (rng.uniform(-12, 0) / 20)
    if rng.random() < 0.12:
        mix = _coded(mix.astype(np.float32), rng)
    return mix.astype(np.float32)


def _follower(sound, seconds):
    """A signal's envelope that falls in `seconds`, 0 to 1."""
    level = np.abs(sound)
    out = lfilter([1], [1, -np.exp(-1 / (seconds * RATE))], level)
    return np.clip(out / (np.percentile(out, 99) + 1e-9), 0, 1)


def _equalised(sound, rng):
    size = next_fast_len(len(sound), real=True)
    spectrum = rfft(sound.astype(np.float32), size)
    octave = np.log2(np.maximum(20, np.arange(len(spectrum)) * RATE / size) / 20)
    points = rng.normal(0, 5, 6)
    return irfft(spectrum * (10 ** (np.interp(octave, np.linspace(0, 10, 6), points) / 20)).astype(np.float32), size)[: len(sound)]


def _room(sound, rng):
    length = rng.uniform(0.15, 1.6)
    t = np.arange(int(length * RATE)) / RATE
    tail = rng.standard_normal(len(t)) * np.exp(-6.9 * t / length)
    tail = _band(tail, 150, rng.uniform(2500, 9000))
    wet = fftconvolve(sound, tail / (np.sqrt(np.sum(tail**2)) + 1e-9))[: len(sound)]
    return sound + wet * rng.uniform(0.1, 0.7)


def _compressed(sound, rng):
    step = 441
    blocks = np.sqrt(np.mean(np.pad(sound, (0, -len(sound) % step)).reshape(-1, step) ** 2, axis=1) + 1e-10)
    smooth = lfilter([0.3], [1, -0.7], blocks)
    gain = (smooth / (np.percentile(smooth, 95) + 1e-9) + 0.02) ** -rng.uniform(0.2, 0.7)
    return sound * np.interp(np.arange(len(sound)), np.arange(len(gain)) * step, gain)


def _voice(size, rng):
    """Something like singing: a buzz with vibrato through two formants, in phrases that follow no beat."""
    out = np.zeros(size)
    at = 0
    while at < size:
        length = int(rng.uniform(0.12, 0.9) * RATE)
        if rng.random() < 0.75:
            t = np.arange(length) / RATE
            pitch = 110 * 2 ** (rng.integers(0, 24) / 12) * (1 + 0.012 * np.sin(2 * np.pi * rng.uniform(4.5, 6.5) * t) * np.minimum(1, t * 4))
            buzz = np.cumsum(pitch) / RATE % 1 - 0.5
            tone = _band(buzz, rng.uniform(250, 500), rng.uniform(700, 1100)) + 0.5 * _band(buzz, rng.uniform(1000, 1600), rng.uniform(1900, 2800))
            tone *= np.minimum(1, np.minimum(t / 0.04, (t[-1] - t) / 0.06 + 1e-3))
            stop = min(size, at + length)
            out[at:stop] += tone[: stop - at]
            if rng.random() < 0.3:
                hiss = _band(rng.standard_normal(3000), 4000, 9000) * np.hanning(3000) * 0.2
                out[at : min(size, at + 3000)] += hiss[: min(size, at + 3000) - at]
        at += length
    return out / _level(out)


def _noise(size, rng):
    noise = rng.standard_normal(size)
    if rng.random() < 0.5:  # a crowd: noise of voices that swells
        noise = _band(noise, 250, 3500) * np.interp(np.arange(size), np.linspace(0, size, 40), rng.uniform(0.3, 1.5, 40))
    return noise / _level(noise)


def _coded(sound, rng):
    """There and back through a lossy codec; the encoder's delay is taken out."""
    with tempfile.TemporaryDirectory() as folder:
        source, coded, target = (os.path.join(folder, name) for name in ("a.wav", "a.mp3", "b.wav"))
        wavfile.write(source, RATE, (np.clip(sound, -1, 1) * 32767).astype(np.int16))
        for command in (["-i", source, "-b:a", f"{int(rng.choice([64, 96, 128]))}k", coded], ["-i", coded, "-ar", str(RATE), "-ac", "1", target]):
            subprocess.run(["ffmpeg", "-loglevel", "error", "-y", *command], check=True, timeout=120)
        _, back = wavfile.read(target)
    back = back.astype(np.float32) / 32768
    return np.pad(back, (0, max(0, len(sound) - len(back))))[: len(sound)]
