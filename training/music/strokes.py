"""Which strokes of drums a piece has, and when."""

import numpy as np

from .piece import DRUM_CHANNEL

# Keys of General MIDI's percussion map, and those that sound so much alike that hearing them is neither right nor wrong.
KINDS = {"kick": (35, 36), "snare": (38, 40), "hat": (42, 44, 46)}
ALIKE = {"kick": (), "snare": (37, 39), "hat": (51, 53, 54, 59, 69, 70, 82)}
# Strokes softer than this, of 127, are often not heard at all.
SOFT = 30


def strokes_of(piece, when):
    """Moments of every kind of stroke, and of what is left out of the loss: `kick`, `snare`, `hat`, `unsure_kick` and so on."""
    out = {}
    drums = [note for note in piece.notes if note.channel == DRUM_CHANNEL]
    for kind in KINDS:
        loud = [note.at for note in drums if note.key in KINDS[kind] and note.velocity >= SOFT]
        unsure = [note.at for note in drums if note.key in ALIKE[kind] or (note.key in KINDS[kind] and note.velocity < SOFT)]
        out[kind], out[f"unsure_{kind}"] = (np.sort(when(at)) if at else np.zeros(0) for at in (loud, unsure))
    return out
