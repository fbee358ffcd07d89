"""Bare clicks: a metronome, sticks, a beep; with or without an accent on the first beat of a bar, some with eighths between."""

from .piece import DRUM_CHANNEL, Note, Piece

SOUNDS = [37, 42, 56, 60, 69, 75, 76, 36, 38, 51]


def metronome(name, rng, seconds):
    bpm = float(rng.uniform(48, 208))
    pulses = int(rng.choice([2, 3, 4, 4, 4, 5, 6, 7]))
    accented = rng.random() < 0.7
    bars = max(4, int(seconds * bpm / 60 / pulses))
    sound, accent = (int(rng.choice(SOUNDS)) for _ in range(2))
    divided = 2 if rng.random() < 0.2 and bpm < 120 else 1
    notes = []
    for beat in range(bars * pulses):
        first = accented and beat % pulses == 0
        notes.append(Note(beat, 0.1, DRUM_CHANNEL, accent if first else sound, 120 if first else 90))
        if divided == 2:
            notes.append(Note(beat + 0.5, 0.1, DRUM_CHANNEL, sound, 50))
    return Piece(name, "metronome", bpm, notes, 0, bars * pulses - 1, [bar * pulses for bar in range(bars)], [], {}, rng.choice(["machine", "band", "free"]),
                 bars_known=accented, sections_known=True, machine_drums=True)
