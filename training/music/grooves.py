"""Pieces from the accompaniment styles of the Debian package `mma`."""

import os
import re
import subprocess
import tempfile

import mido

from .piece import Note, Piece

LIBRARY = "/usr/share/mma/lib"
CHORDS = [
    "C F G C", "C Am F G", "Am F C G", "Dm7 G7 CM7 Am7", "C7 F7 C7 G7", "Em D C B7", "C G Am F", "Am Dm E7 Am", "F G Em Am", "CM7 FM7 Dm7 G7",
    "C C F G", "Am G F E7", "Dm7 Em7 FM7 G7", "Cm Ab Eb Bb", "Gm Cm D7 Gm", "E A B7 E", "D Bm G A", "Bb F Gm Eb",
]
# What a style's file name says about its tempo.
TEMPI = [
    (r"slow|ballad|lullaby|hymn|nite|bolero", (56, 96)), (r"fast|bebop|quickstep|merengue|vienese|dixie|samba|ska|polka", (130, 216)),
    (r"waltz", (90, 190)), (r"swing|jazz|bigband|boogie|boggie", (100, 200)), (r"rock|twist|jive|blue", (96, 168)), (r"trance|techno|disco", (118, 146)),
]
LABELS = ["verse", "chorus", "verse", "bridge", "chorus"]


def library():
    """Style files as {name: (beats in a bar, pulses in a bar, groove names)}."""
    found = {}
    for folder, _, files in os.walk(LIBRARY):
        for file in files:
            if not file.endswith(".mma") or file.startswith(("metronome", "none")):
                continue
            text = open(os.path.join(folder, file), encoding="latin-1").read()
            grooves = re.findall(r"^\s*DefGroove\s+(\S+)", text, re.I | re.M)
            sign = re.search(r"^\s*TimeSig\s+(\d+)[ /](\d+)", text, re.I | re.M)
            time = re.search(r"^\s*Time\s+(\d+)", text, re.I | re.M)
            beats = int(time.group(1)) if time else 4
            upper, lower = (int(sign.group(1)), int(sign.group(2))) if sign else (beats, 4)
            pulses = beats // 3 if lower == 8 and upper % 3 == 0 and upper > 3 else beats
            if grooves and 2 <= pulses <= 7:
                found[file[:-4]] = (beats, pulses, grooves)
    return found


def from_groove(name, style, entry, rng, seconds):
    """A piece in one style file, or None where `mma` cannot play it."""
    beats, pulses, grooves = entry
    bpm = rng.uniform(*next((tempo for hint, tempo in TEMPI if re.search(hint, style)), (80, 140)))
    if beats != pulses:
        bpm = rng.uniform(46, 84) if rng.random() < 0.6 else rng.uniform(84, 130)
    bars = max(8, int(seconds * bpm / 60 / pulses))
    base = grooves[int(rng.integers(0, len(grooves)))]
    kin = [groove for groove in grooves if groove[:4] == base[:4] and not re.search("intro|end|fill", groove, re.I)] or [base]
    fills = [groove for groove in grooves if re.search("fill", groove, re.I)]
    unit = int(rng.choice([4, 8, 8, 8, 12]))
    lines, sections, bar = [f"Tempo {bpm:.2f}", "KeySig C"], [], 0
    chords = {label: CHORDS[int(rng.integers(0, len(CHORDS)))].split() for label in LABELS}
    playing = {label: kin[int(rng.integers(0, len(kin)))] for label in LABELS}
    wide = int(rng.choice([1, 1, 1, 2]))
    for index in range(1000):
        if bar >= bars:
            break
        label = LABELS[index % len(LABELS)]
        sections.append((bar * pulses, label))
        lines.append(f"Groove {playing[label]}")
        for i in range(min(unit, bars - bar)):
            if i == unit - 1 and fills and rng.random() < 0.6:
                lines.append(f"Groove {fills[int(rng.integers(0, len(fills)))]}")
            lines.append(f"{i + 1} {chords[label][(i // wide) % len(chords[label])]}")
            bar += 1
    midi = _play(lines)
    if midi is None:
        return None
    notes, programs = read_notes(midi, scale=pulses / beats)
    if len(notes) < bars * 2:
        return None
    downbeats = [i * pulses for i in range(bars)]
    feel = "machine" if rng.random() < 0.4 else "band"
    shift = int(rng.integers(-5, 7))
    for note in notes:
        if note.channel != 9:
            note.key = min(127, max(0, note.key + shift))
    return Piece(name, f"mma-{style}", float(bpm), notes, 0, bars * pulses - 1, downbeats, sections, programs, feel)


def _play(lines):
    with tempfile.TemporaryDirectory() as folder:
        source, target = os.path.join(folder, "a.mma"), os.path.join(folder, "a.mid")
        open(source, "w").write("\n".join(lines) + "\n")
        try:
            subprocess.run(["mma", source, "-f", target], capture_output=True, timeout=60, check=True, env={**os.environ, "HOME": folder, "PATH": "/usr/bin:/bin"})
            return mido.MidiFile(target)
        except (subprocess.SubprocessError, OSError, EOFError, ValueError):
            return None


def read_notes(midi, scale=1.0):
    """Notes of all tracks in quarters times `scale`, and the first program of each channel."""
    notes, programs = [], {}
    for track in midi.tracks:
        tick, sounding = 0, {}
        for message in track:
            tick += message.time
            at = tick / midi.ticks_per_beat * scale
            if message.type == "program_change":
                programs.setdefault(message.channel, message.program)
            elif message.type == "note_on" and message.velocity > 0:
                sounding.setdefault((message.channel, message.note), []).append((at, message.velocity))
            elif message.type in ("note_off", "note_on"):
                begun = sounding.get((message.channel, message.note))
                if begun:
                    start, velocity = begun.pop(0)
                    notes.append(Note(start, max(0.05, at - start), message.channel, message.note, velocity))
    notes.sort(key=lambda note: note.at)
    return notes, programs
