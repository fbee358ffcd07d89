"""Makes training pieces: `python3 -m music.make_data FOLDER COUNT [FIRST] [WORKERS]`.

Each piece becomes FOLDER/NUMBER.npz with `bands` (frames times 64, hundredths as bytes), times of `beats`, `downbeats`
and `sections` and of strokes of drums in seconds, and what is known of it. The number is the seed, so the same number is the same piece.
"""

import json
import os
import sys
import traceback
from dataclasses import replace
from multiprocessing import Pool

import numpy as np

from . import grooves, people
from .arrange import compose
from .features import bands_of
from .metronome import metronome
from .piece import DRUM_CHANNEL
from .render import render
from .strokes import strokes_of
from .styles import NONE4, STYLES

SECONDS = (40, 66)
# The pieces of these thousand numbers are bare clicks.
METRONOMES = 200_000
# And of these drums alone; of those, with each style as common as the others.
DRUMS_ALONE = 300_000
DRUMS_OF_EACH = 400_000
PACKAGES = os.environ.get("HOVLIX_MIDI_PACKAGES", "/tmp/data/packages")
_LIBRARY, _FILES = None, None


def piece_of(number):
    """The piece of a number: composed, an accompaniment style, or written by people."""
    global _LIBRARY, _FILES
    rng = np.random.default_rng(number)
    seconds = rng.uniform(*SECONDS)
    if METRONOMES <= number < METRONOMES + 1000:
        return metronome(str(number), rng, seconds), rng
    if DRUMS_ALONE <= number < DRUMS_ALONE + 1000:
        return drums_of(compose(str(number), _style(rng, with_drums=True), rng, seconds)), rng
    if DRUMS_OF_EACH <= number < DRUMS_OF_EACH + 1000:
        drummed = sorted(name for name in STYLES if STYLES[name]["weight"] and STYLES[name]["hat"] != NONE4)
        return drums_of(compose(str(number), drummed[int(rng.integers(0, len(drummed)))], rng, seconds)), rng
    source = rng.choice(["composed", "groove", "people"], p=[0.56, 0.26, 0.18])
    if source == "groove":
        _LIBRARY = _LIBRARY or grooves.library()
        style = sorted(_LIBRARY)[int(rng.integers(0, len(_LIBRARY)))]
        piece = grooves.from_groove(str(number), style, _LIBRARY[style], rng, seconds)
        if piece:
            return piece, rng
    if source == "people":
        _FILES = _FILES or people.fetch(PACKAGES)
        for _ in range(6):
            piece = people.from_file(_FILES[int(rng.integers(0, len(_FILES)))], rng, seconds)
            if piece:
                return piece, rng
    return compose(str(number), _style(rng), rng, seconds), rng


def _style(rng, with_drums=False):
    """A style of ours, by its weight."""
    names = sorted(STYLES)
    weights = np.array([STYLES[name]["weight"] * (not with_drums or STYLES[name]["hat"] != NONE4) for name in names], float)
    return names[rng.choice(len(names), p=weights / weights.sum())]


def drums_of(piece):
    """The piece as its drummer practises it, from the first bar in which drums play to the last."""
    drums = [note for note in piece.notes if note.channel == DRUM_CHANNEL]
    if not drums:
        return piece
    first, last = min(note.at for note in drums), max(note.at for note in drums)
    downbeats = [at for at in piece.downbeats if at <= last]
    begin = max([at for at in downbeats if at <= first + 1e-6], default=piece.first_beat)
    return replace(piece, notes=drums, first_beat=int(begin), last_beat=min(piece.last_beat, int(np.ceil(last))),
                   downbeats=[at for at in downbeats if at >= begin], sections=[(at, label) for at, label in piece.sections if begin <= at <= last],
                   bars_known=piece.bars_known, sections_known=False)


def make(job):
    folder, number = job
    path = os.path.join(folder, f"{number:06d}.npz")
    if os.path.exists(path):
        return None
    try:
        piece, rng = piece_of(number)
        sound, beats, when = render(piece, rng)
        bands = np.minimum(255, np.round(bands_of(sound) * 100)).astype(np.uint8)
        facts = {"name": piece.name, "style": piece.style, "bpm": piece.bpm, "bars_known": piece.bars_known, "sections_known": piece.sections_known,
                 "labels": [label for _, label in piece.sections]}
        np.savez_compressed(path, bands=bands, beats=beats, downbeats=when(piece.downbeats), sections=when([beat for beat, _ in piece.sections]), facts=json.dumps(facts),
                            **strokes_of(piece, when))
    except Exception:
        return f"{number}: {traceback.format_exc(limit=3)}"
    return None


def main():
    folder, count = sys.argv[1], int(sys.argv[2])
    first = int(sys.argv[3]) if len(sys.argv) > 3 else 0
    workers = int(sys.argv[4]) if len(sys.argv) > 4 else os.cpu_count()
    os.makedirs(folder, exist_ok=True)
    with Pool(workers) as pool:
        for done, trouble in enumerate(pool.imap_unordered(make, [(folder, first + i) for i in range(count)])):
            if trouble:
                print(trouble, flush=True)
            if done % 50 == 49:
                print(f"{done + 1} of {count}", flush=True)


if __name__ == "__main__":
    main()
