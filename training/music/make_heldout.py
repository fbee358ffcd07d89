"""Pieces to score on, that no training saw: `python3 -m music.make_heldout FOLDER COUNT [FIRST]`.

Writes FOLDER/NUMBER.ogg and its truth, NUMBER.json, as `npm run bench:music -- FOLDER` reads them.
"""

import json
import os
import subprocess
import sys

import numpy as np
from scipy.io import wavfile

from .features import RATE
from .make_data import piece_of
from .render import render
from .strokes import strokes_of


def main():
    folder, count = sys.argv[1], int(sys.argv[2])
    first = int(sys.argv[3]) if len(sys.argv) > 3 else 900_000
    os.makedirs(folder, exist_ok=True)
    for number in range(first, first + count):
        piece, rng = piece_of(number)
        sound, beats, when = render(piece, rng)
        truth = {
            "title": f"{piece.style} {number}", "bpm": round(60 / float(np.median(np.diff(beats))), 3), "beats": beats.round(4).tolist(),
            "downbeats": when(piece.downbeats).round(4).tolist() if piece.bars_known else None,
            "sections": [{"startSec": round(float(when([beat])[0]), 4), "label": label} for beat, label in piece.sections],
            "strokes": {kind: times.round(4).tolist() for kind, times in strokes_of(piece, when).items()},
        }
        name = os.path.join(folder, f"{piece.style}-{number}")
        json.dump({key: value for key, value in truth.items() if value is not None}, open(f"{name}.json", "w"))
        wavfile.write(f"{name}.wav", RATE, (np.clip(sound, -1, 1) * 32767).astype(np.int16))
        subprocess.run(["ffmpeg", "-loglevel", "error", "-y", "-i", f"{name}.wav", "-c:a", "libvorbis", "-q:a", "4", f"{name}.ogg"], check=True)
        os.remove(f"{name}.wav")


if __name__ == "__main__":
    main()
