"""Pieces written by people: Standard MIDI Files of Debian packages, with beats checked before they are believed."""

import glob
import os
import struct
import subprocess

import mido
import numpy as np

from .grooves import read_notes
from .piece import DRUM_CHANNEL, Piece

# Package: licence. The files are trained on and never shipped.
PACKAGES = {
    "simutrans-data": "Artistic-1.0", "openttd-openmsx": "GPL-2", "freedink-data": "free, several; see its copyright file",
    "planetblupi-music-midi": "GPL-3+", "freedoom": "BSD-3-Clause", "pianobooster": "GPL-3",
}
SNARES, KICKS = {37, 38, 39, 40}, {35, 36}


def fetch(folder):
    """Downloads and unpacks the packages once; returns the paths of their MIDI files."""
    os.makedirs(folder, exist_ok=True)
    for package in PACKAGES:
        target = os.path.join(folder, package)
        if not os.path.isdir(target):
            subprocess.run(["apt-get", "download", package], cwd=folder, check=True, capture_output=True)
            [archive] = glob.glob(os.path.join(folder, f"{package}_*.deb"))
            subprocess.run(["dpkg", "-x", archive, target], check=True)
    for wad in glob.glob(os.path.join(folder, "**", "*.wad"), recursive=True):
        _unpack_wad(wad)
    return sorted(path for path in glob.glob(os.path.join(folder, "**", "*"), recursive=True) if path.lower().endswith((".mid", ".midi")))


def _unpack_wad(path):
    """Writes each MIDI lump of a WAD file beside it."""
    data = open(path, "rb").read()
    count, at = struct.unpack_from("<ii", data, 4)
    for i in range(count):
        start, size, name = struct.unpack_from("<ii8s", data, at + 16 * i)
        if data[start : start + 4] == b"MThd":
            name = name.rstrip(b"\0").decode("latin-1").lower()
            open(os.path.join(os.path.dirname(path), f"{name}.mid"), "wb").write(data[start : start + size])


def from_file(path, rng, seconds):
    """A stretch of a file as a piece; None where its notes lie on no grid or its pulse is in doubt."""
    try:
        midi = mido.MidiFile(path, clip=True)
        notes, programs = read_notes(midi)
    except (OSError, EOFError, ValueError, IndexError, KeyError, mido.KeySignatureError):
        return None
    if len(notes) < 150 or midi.type == 2:
        return None
    tempi, meters, ticks = [], [], midi.ticks_per_beat
    for track in midi.tracks:
        tick = 0
        for message in track:
            tick += message.time
            if message.type == "set_tempo":
                tempi.append((tick / ticks, 60e6 / message.tempo))
            elif message.type == "time_signature":
                meters.append((tick / ticks, message.numerator, message.denominator))
    if len({meter[1:] for meter in meters}) > 1:
        return None
    upper, lower = meters[0][1:] if meters else (4, 4)
    quarters_in_bar = upper * 4 / lower
    if not _on_grid(notes):
        return None
    pulse = 1.5 if lower == 8 and upper in (6, 9, 12) else 0.5 if lower == 8 else 1.0
    bpm = float(np.median([tempo for _, tempo in tempi])) if tempi else 120.0
    factor, sure, shift = _count(notes, bpm / pulse, pulse, quarters_in_bar / pulse)
    if factor is None:
        return None
    pulse /= factor
    bpm = bpm / pulse
    pulses = quarters_in_bar / pulse
    if not 45 <= bpm <= 215:
        return None
    if abs(pulses - round(pulses)) > 1e-6 or round(pulses) < 2:
        sure, pulses = False, 4
    pulses = int(round(pulses))
    start = notes[0].at
    first = int(np.floor(start / pulse + 0.02))
    last = int(np.floor(max(note.at for note in notes) / pulse))
    # A random stretch of it, on bars.
    span = int(seconds * bpm / 60)
    if last - first > span + 8:
        first += int(rng.integers(0, last - first - span)) // pulses * pulses
        last = first + span
    kept = []
    shift_key = int(rng.integers(-5, 7))
    for note in notes:
        if first - 0.05 <= note.at / pulse <= last + 0.9:
            note.at, note.length = note.at / pulse, min(note.length / pulse, 16)
            if note.channel != DRUM_CHANNEL:
                note.key = min(127, max(0, note.key + shift_key))
            kept.append(note)
    if len(kept) < 60:
        return None
    downbeats = [beat for beat in range(first, last + 1) if (beat - shift) % pulses == 0]
    bpm *= float(np.exp(rng.normal(0, 0.08)))
    return Piece(os.path.basename(path), "people", bpm, kept, first, last, downbeats, [], programs, "machine" if rng.random() < 0.6 else "band", bars_known=sure, sections_known=False)


def _on_grid(notes):
    """Whether most notes begin near sixteenths or triplets of a quarter."""
    phase = np.array([note.at % 1 for note in notes])
    grid = np.array([0, 1 / 4, 1 / 3, 1 / 2, 2 / 3, 3 / 4, 1])
    return np.mean(np.min(np.abs(phase[:, None] - grid[None]), axis=1) < 0.03) > 0.8


def _count(notes, bpm, pulse, pulses):
    """How musicians count it: (factor on the written pulse or None, are bars sure, first downbeat in pulses)."""
    drums = [note for note in notes if note.channel == DRUM_CHANNEL]
    snares = np.array([note.at / pulse for note in drums if note.key in SNARES and note.velocity > 50])
    kicks = np.array([note.at / pulse for note in drums if note.key in KICKS])
    if len(snares) < 16 or len(kicks) < 16:
        return (1, True, 0) if 60 <= bpm <= 160 else (0.5, False, 0) if bpm > 200 else (None, False, 0)
    on = lambda places, at, modulo: float(np.mean(np.abs((places - at + modulo / 2) % modulo - modulo / 2) < 0.08))
    if abs(pulses - 4) > 0.01:
        return (1, True, 0) if 50 <= bpm <= 200 else (None, False, 0)
    backbeat = on(snares, 1, 4) + on(snares, 3, 4)
    front = on(snares, 0, 4) + on(snares, 2, 4)
    half = on(snares, 2, 4)
    offs = on(snares, 0.5, 1)
    if backbeat > 0.55:
        return 1, on(kicks, 0, 4) >= on(kicks, 2, 4) * 0.9, 0
    if half > 0.5 and on(snares, 0, 4) < 0.15:
        return (0.5, True, 0) if bpm >= 116 else (1, True, 0)
    if offs > 0.55 and bpm < 110:
        return 2, False, 0
    if front > 0.55:
        return 1, False, 0
    return (1, False, 0) if 70 <= bpm <= 160 else (None, False, 0)
