"""Composes pieces in the styles of `styles.py`: form, harmony, drums, bass, chords and melody."""

import numpy as np

from .piece import DRUM_CHANNEL, Note, Piece
from .styles import STYLES

MAJOR, MINOR, DORIAN, MIXO = [0, 2, 4, 5, 7, 9, 11], [0, 2, 3, 5, 7, 8, 10], [0, 2, 3, 5, 7, 9, 10], [0, 2, 4, 5, 7, 9, 10]
PROGRESSIONS = [
    [0, 4, 5, 3], [0, 3, 4, 4], [0, 5, 3, 4], [5, 3, 0, 4], [0, 3, 0, 4], [1, 4, 0, 0], [0, 5, 1, 4], [0, 0, 3, 4], [0, 6, 5, 4], [0, 2, 3, 4],
    [0, 6, 3, 0], [0, 0, 0, 0, 3, 3, 0, 0, 4, 3, 0, 4], [0, 5, 2, 6], [0, 0], [0, 3], [2, 5, 1, 4], [0, 4, 1, 3, 0, 4, 3, 4],
]
KICK, SNARE, RIM, CLAP, HAT, OPEN, CRASH, RIDE, PEDAL = 36, 38, 37, 39, 42, 46, 49, 51, 44
TOMS = [50, 48, 47, 45, 43, 41]
# Programs by what an instrument does.
PROGRAMS = {
    "bass": [32, 33, 34, 35, 36, 38, 39, 43],
    "power": [29, 30, 30, 29, 27], "chug": [30, 29], "power8": [29, 30, 27],
    "strum": [24, 25, 26, 27, 105], "piano": [0, 1, 2, 4, 5, 7, 16, 17], "pad": [48, 49, 50, 51, 52, 88, 89, 90, 91, 92, 94, 16, 19, 21],
    "stab": [4, 5, 7, 16, 18, 28, 61, 62, 63, 81, 90], "arp": [0, 5, 6, 11, 24, 25, 46, 80, 81, 84, 88, 98], "comp": [0, 1, 26, 4],
    "lead": [0, 11, 22, 40, 52, 53, 54, 56, 57, 64, 65, 66, 71, 73, 74, 80, 81, 82, 85, 26, 27, 29, 30, 110, 21],
    "orchestra": [48, 49, 60, 61, 68, 71, 73, 46, 40, 42],
}


def compose(name, style, rng, seconds):
    """A piece of about `seconds` in one of the styles."""
    return _Composer(name, style, rng, seconds).piece()


class _Composer:
    def __init__(self, name, style, rng, seconds):
        self.name, self.style, self.rng, self.seconds = name, style, rng, seconds
        self.spec = STYLES[style]
        self.pulses, self.steps = self.spec["pulses"], self.spec["steps"]
        self.bpm = float(rng.uniform(*self.spec["bpm"]))
        self.machine = self.spec["kit"] == "machine" or (self.spec["kit"] == "any" and rng.random() < 0.5)
        if self.machine and rng.random() < 0.7:
            self.bpm = round(self.bpm)
        self.scale = [MAJOR, MINOR, DORIAN, MIXO][rng.choice(4, p=[0.45, 0.35, 0.1, 0.1])]
        self.key = int(rng.integers(0, 12))
        self.notes = []
        self.jitter = 0.0 if self.machine else rng.uniform(0.002, 0.012)
        low, high = self.spec.get("swing", (0.5, 0.5))
        self.swing = rng.uniform(low, high) if rng.random() < 0.7 else 0.5
        if self.spec["steps"] == 4 and rng.random() < 0.08:
            self.swing = rng.uniform(0.54, 0.66)
        self.programs = {}
        # Beats per chord: mostly a bar, sometimes two, half, or a riff on one chord.
        bar = self.pulses
        self.chord_beats = [bar, bar * 2, bar / 2 if bar % 2 == 0 else bar, bar * 4][rng.choice(4, p=[0.62, 0.16, 0.17, 0.05])]

    # Small tools -----------------------------------------------------------------------------------------------------

    def pick(self, values):
        return values[int(self.rng.integers(0, len(values)))]

    def swung(self, at):
        """Moves the off-beats of straight steps: eighths by the swing, or sixteenths where the beat is slow."""
        if self.swing == 0.5 or self.steps == 3:
            return at
        unit = 0.5 if self.bpm < 105 else 1.0
        whole = np.floor(at / unit) * unit
        part = (at - whole) / unit
        warped = part * 2 * self.swing if part < 0.5 else self.swing + (part - 0.5) * 2 * (1 - self.swing)
        return whole + warped * unit

    def add(self, at, length, channel, key, velocity):
        moved = self.swung(at)
        late = self.rng.standard_normal() * self.jitter * self.bpm / 60
        if 0 < key < 128 and velocity > 3:
            self.notes.append(Note(moved + late, max(0.05, length), channel, int(key), int(np.clip(velocity, 4, 127))))

    def pattern(self, text, start, play):
        """Calls `play(at, strength)` for each step of a bar's pattern that sounds."""
        for i, sign in enumerate(text[: self.pulses * self.steps]):
            strength = {"x": 1.0, "o": 0.55, "?": 0.7 if self.rng.random() < 0.5 else 0}.get(sign, 0)
            if strength:
                play(start + i / self.steps, strength)

    def chord(self, degree):
        root = self.key + self.scale[degree % 7] + (12 if degree >= 7 else 0)
        third = self.key + self.scale[(degree + 2) % 7] + (12 if degree + 2 >= 7 else 0)
        fifth = self.key + self.scale[(degree + 4) % 7] + (12 if degree + 4 >= 7 else 0)
        tones = [root, third, fifth]
        if self.rng.random() < 0.15:
            tones.append(self.key + self.scale[(degree + 6) % 7] + 12)
        return tones

    # Form ------------------------------------------------------------------------------------------------------------

    def form(self):
        """Sections as (label, bars, layers, part): parts of one letter share harmony and patterns."""
        rng = self.rng
        total = max(12, int(self.seconds * self.bpm / 60 / self.pulses))
        dance = self.style in ("house", "techno", "trance", "dnb", "electro", "disco")
        order = (
            ["intro", "drop", "breakdown", "build", "drop", "outro"] if dance and rng.random() < 0.7
            else self.pick([
                ["intro", "verse", "chorus", "verse", "chorus", "bridge", "chorus", "outro"],
                ["verse", "chorus", "verse", "chorus", "bridge", "chorus"],
                ["intro", "verse", "verse", "chorus", "verse", "chorus", "outro"],
                ["intro", "verse", "bridge", "verse", "solo", "bridge", "verse"],
            ])
        )
        unit = 8 if rng.random() < 0.7 else self.pick([4, 6, 12, 16, 10])
        if self.bpm / self.pulses < 20:
            unit = max(4, unit // 2)
        sections, bars = [], 0
        while bars < total:
            for label in order:
                size = unit
                if label in ("intro", "outro", "build"):
                    size = max(2, unit // self.pick([1, 2, 2, 4]))
                if rng.random() < 0.06:
                    size += self.pick([-1, 1, 2])
                size = int(min(size, total - bars + 1))
                if bars >= total or size < 1:
                    break
                sections.append((label, size))
                bars += size
        return sections

    def layers(self, label, first):
        """Which instruments play in a section: drums 0 (none) to 3 (all)."""
        rng = self.rng
        full = {"drums": 3, "bass": True, "chords": True, "second": rng.random() < 0.5, "lead": rng.random() < self.spec["lead"]}
        if label == "intro":
            return {**full, "drums": int(rng.choice([0, 1, 2, 3])), "bass": rng.random() < 0.5, "lead": False}
        if label == "verse":
            return {**full, "drums": 3 if rng.random() < 0.75 else 2, "second": rng.random() < 0.3}
        if label in ("breakdown", "bridge"):
            return {**full, "drums": int(rng.choice([0, 0, 1, 3])), "bass": rng.random() < 0.5}
        if label == "build":
            return {**full, "drums": 4, "bass": rng.random() < 0.3}
        if label == "outro":
            return {**full, "drums": int(rng.choice([1, 3])), "lead": False}
        if label == "drop":
            return {**full, "lead": rng.random() < self.spec["lead"]}
        return full

    # A piece ---------------------------------------------------------------------------------------------------------

    def piece(self):
        rng, pulses = self.rng, self.pulses
        self.voices = self.cast()
        forms, parts, sections, downbeats = self.form(), {}, [], []
        beat, first = 0, 0
        if rng.random() < 0.1:  # four on the sticks
            for i in range(pulses):
                self.add(i, 0.2, DRUM_CHANNEL, 37 if rng.random() < 0.5 else 42, 90)
            downbeats.append(0)
            beat = pulses
        elif rng.random() < 0.12:
            first = -int(rng.integers(1, pulses)) if pulses > 2 else -1
            self.pickup(first)
        steps = {}
        for index, (label, bars) in enumerate(forms):
            if label not in parts:
                parts[label] = self.part(label)
            sections.append((beat, label))
            if index and rng.random() < 0.04 and not self.machine:
                steps[beat] = float(rng.choice([0.75, 0.85, 1.15, 1.25, 1.5]))
            self.section(beat, label, bars, parts[label], last=index == len(forms) - 1)
            downbeats += [beat + b * pulses for b in range(bars)]
            beat += bars * pulses
        if rng.random() < 0.7:  # a last hit
            self.hit(beat)
            downbeats.append(beat)
            last = beat
        else:
            last = beat - 1
        feel = "free" if self.spec.get("free") else "machine" if self.machine or rng.random() < 0.35 else "band"
        return Piece(self.name, self.style, self.bpm, self.notes, first, last, downbeats, sections, self.programs, feel,
                     machine_drums=self.machine and rng.random() < 0.8, tempo_steps=steps)

    def cast(self):
        """Channels and programs of the parts."""
        orchestra = self.spec.get("orchestra")
        chords = self.pick(self.spec["chords"])
        second = self.pick(["pad", "arp16", "arp8", "stabs", "piano4", *self.spec["chords"]]) if self.steps != 3 else self.pick(["pad", *self.spec["chords"]])
        self.programs[0] = self.pick(PROGRAMS["bass"])
        for channel, kind in ((1, chords), (2, second)):
            self.programs[channel] = self.pick(PROGRAMS["orchestra"] if orchestra else PROGRAMS[self.family(kind)])
        self.programs[3] = self.pick(PROGRAMS["lead"])
        self.programs[DRUM_CHANNEL] = self.pick([0, 0, 8, 16, 24, 25, 32, 40])
        return {"chords": chords, "second": second, "bass": self.pick(self.spec["bass"])}

    @staticmethod
    def family(kind):
        for start, family in (("power", "power"), ("chug", "chug"), ("strum", "strum"), ("piano", "piano"), ("trip", "piano"), ("pad", "pad"), ("super", "pad"),
                              ("sixteenths", "orchestra"), ("arp", "arp"), ("comp", "comp"), ("char", "comp"), ("mont", "piano"), ("umpah", "strum"), ("bossa", "strum"),
                              ("skank", "stab"), ("offs", "strum"), ("loop", "piano")):
            if kind.startswith(start):
                return family
        return "stab"

    def part(self, label):
        """What a section of this label plays each time it comes."""
        rng, spec = self.rng, self.spec
        snare = self.pick(spec["snare"])
        if self.steps == 4 and self.pulses == 4 and label in ("bridge", "breakdown", "intro") and rng.random() < 0.12 and "x" in snare:
            snare = self.pick(HALF)
        progression = self.pick(PROGRESSIONS)
        return {
            "kick": self.pick(spec["kick"]), "snare": snare, "hat": self.pick(spec["hat"]), "progression": progression,
            "ride": spec.get("ride", False) or rng.random() < 0.2, "motif": self.motif(), "percussion": self.percussion(), "turn": rng.random() < 0.25,
            "layers": self.layers(label, True), "accents": rng.random(),
        }

    def percussion(self):
        """A shaker, tambourine, conga or cowbell pattern in some songs."""
        if self.rng.random() < 0.7:
            return None
        count = self.pulses * self.steps
        signs = self.rng.choice(list("x.o."), size=count)
        if self.rng.random() < 0.5:
            signs = np.array(list(("xo" if self.steps != 3 else "xoo") * count)[:count])
        return "".join(signs), self.pick([54, 56, 60, 62, 63, 69, 70, 75, 82])

    def motif(self):
        """Two bars of melody as (at, length, step)."""
        rng, beats = self.rng, self.pulses * 2
        runs = self.spec.get("lead_runs", False)
        unit = 1 / self.steps if runs else self.pick([0.5, 0.5, 1.0, 0.25]) if self.steps != 3 else self.pick([1.0, 1 / 3, 2 / 3])
        notes, at, step = [], self.pick([0.0, 0.0, 0.5 if self.steps != 3 else 0.0, float(self.pulses - 1)]), int(rng.integers(0, 7))
        while at < beats - 0.01:
            length = unit * (1 if runs else self.pick([1, 1, 1, 2, 2, 3, 4]))
            if runs or rng.random() < 0.8:
                notes.append((at, length, step))
            at += length
            step = int(np.clip(step + rng.choice([-2, -1, -1, 0, 1, 1, 2]), -4, 11))
        return notes

    def section(self, start, label, bars, part, last):
        layers = part["layers"]
        rng = self.rng
        for bar in range(bars):
            at = start + bar * self.pulses
            fill = bar == bars - 1 and rng.random() < 0.55
            stop = bar == bars - 1 and rng.random() < 0.06
            if layers["drums"]:
                self.drums(at, part, layers["drums"], bar, bars, fill, stop)
            if stop:
                continue
            self.harmony(at, start, part, layers)
            if layers["lead"]:
                self.melody(at, bar, part)

    # Drums -----------------------------------------------------------------------------------------------------------

    def drums(self, at, part, amount, bar, bars, fill, stop):
        rng, pulses = self.rng, self.pulses
        d = lambda where, key, velocity: self.add(where, 0.2, DRUM_CHANNEL, key, velocity)
        snare = RIM if self.spec.get("rim") else CLAP if self.machine and part["accents"] < 0.4 else SNARE
        cut = at + (pulses - (1 if rng.random() < 0.6 else pulses / 2 if pulses % 2 == 0 else 1)) if fill or stop else at + pulses
        if amount == 4:  # a build-up: rolls that grow denser
            density = [1, 1, 2, 4][min(3, 4 * bar // max(1, bars))]
            for i in range(pulses * density):
                d(at + i / density, SNARE, 60 + 50 * (bar + 1) / bars)
            if part["accents"] < 0.5:
                for i in range(pulses):
                    d(at + i, KICK, 100)
            return
        if bar == 0 and amount >= 2 and rng.random() < 0.65:
            d(at, CRASH, 110)
        hat = RIDE if part["ride"] and amount == 3 else HAT
        base = 60 + 45 * part["accents"]
        if amount in (1, 3) or rng.random() < 0.1:
            self.pattern(part["hat"], at, lambda t, s: t < cut and d(t, OPEN if hat == HAT and s < 0.6 and self.swing > 2 else hat, base * s + rng.normal(0, 5)))
        if amount >= 2:
            self.pattern(part["kick"], at, lambda t, s: t < cut and d(t, KICK, 112 * s + rng.normal(0, 5)))
            self.pattern(part["snare"], at, lambda t, s: t < cut and d(t, snare, (112 if s > 0.9 else 60) + rng.normal(0, 6)))
        if part["percussion"] and amount >= 2:
            text, key = part["percussion"]
            self.pattern(text, at, lambda t, s: d(t, key, 75 * s))
        if fill and amount >= 2 and cut < at + pulses:
            count = int((at + pulses - cut) * self.steps)
            tom = self.pick([TOMS, [SNARE] * 6, [SNARE, SNARE, *TOMS[:4]]])
            for i in range(count):
                if rng.random() < 0.85:
                    d(cut + i / self.steps, tom[min(5, i * 6 // max(1, count))], 80 + 35 * i / count)

    # Bass, chords, melody ---------------------------------------------------------------------------------------------

    def harmony(self, at, start, part, layers):
        pulses = self.pulses
        progression = part["progression"]
        place = at
        while place < at + pulses - 1e-6:
            index = int((place - start) / self.chord_beats + 1e-6)
            degree = progression[index % len(progression)]
            length = min(self.chord_beats, at + pulses - place)
            tones = self.chord(degree)
            if layers["bass"]:
                self.bass(place, length, tones, part)
            if layers["chords"]:
                self.comp(place, length, tones, self.voices["chords"], 1, index)
            if layers["second"]:
                self.comp(place, length, tones, self.voices["second"], 2, index)
            place += length

    def bass(self, at, length, tones, part):
        rng, kind, steps = self.rng, self.voices["bass"], self.steps
        root = 28 + (tones[0] - 4) % 12
        fifth = root + 7 if rng.random() < 0.8 else root - 5
        note = lambda t, l, key, v=95: t < at + length - 1e-6 and self.add(t, l * 0.9, 0, key, v + rng.normal(0, 6))
        if kind == "none":
            return
        if kind in ("roots", "long"):
            note(at, length, root)
            if kind == "roots" and length >= 2 and rng.random() < 0.4:
                note(at + length - (0.5 if steps != 3 else 1 / 3), 0.4, fifth)
        elif kind in ("ones", "ones5"):
            for i in range(0, int(length), max(1, 2 if self.pulses == 4 else 3 if self.pulses == 3 else 1)):
                note(at + i, 0.9, fifth if kind == "ones5" and i else root)
        elif kind in ("eighths", "sixteenths"):
            unit = (1 / 3 if steps == 3 else 0.5) if kind == "eighths" else 0.25
            for i in range(int(round(length / unit))):
                note(at + i * unit, unit, root if rng.random() < 0.92 else root + 12, 100 if i % round(1 / unit) == 0 else 86)
        elif kind == "octaves":
            for i in range(int(length * 2)):
                note(at + i / 2, 0.4, root + 12 * (i % 2))
        elif kind in ("offbass", "rolling"):
            for i in range(int(length)):
                for part_of in (0.5,) if kind == "offbass" else (0.25, 0.5, 0.75):
                    note(at + i + part_of, 0.24, root)
        elif kind == "walk":
            for i in range(int(np.ceil(length))):
                step = root if i == 0 else root + self.pick([3, 4, 5, 7, 9, 10, 12, -2, -1])
                note(at + i, 0.95, step)
                if rng.random() < 0.1 and steps == 3:
                    note(at + i + 2 / 3, 0.3, step)
        elif kind == "shuffle":
            for i in range(int(length)):
                note(at + i, 0.6, root + [0, 4, 7, 9][i % 4])
                note(at + i + 2 / 3, 0.3, root + [0, 4, 7, 9][i % 4])
        elif kind == "kick":
            self.pattern(part["kick"], at, lambda t, s: note(t, 1 / steps * 1.5, root))
        elif kind == "bossa":
            for i in range(0, int(length), 2):
                note(at + i, 1.4, root if i == 0 else fifth)
                note(at + i + 1.5, 0.4, fifth)
        elif kind == "tumbao":
            for t in (1.5, 3.0):
                note(at + t, 1.0, fifth if t < 2 else root + 12)
        else:  # syncopated and melodic
            count = int(length * steps)
            note(at, 1 / steps, root, 105)
            for i in range(1, count):
                if rng.random() < (0.42 if kind == "sync" else 0.3):
                    note(at + i / steps, 1 / steps, self.pick([root, root, root + 12, fifth, root + 10, root + 3]), 85)

    def comp(self, at, length, tones, kind, channel, index):
        rng, steps = self.rng, self.steps
        low = self.pick([48, 55, 60]) if not hasattr(self, "_low") else self._low
        self._low = low
        voicing = sorted(low + (tone - low) % 12 for tone in tones)
        power = [36 + (tones[0]) % 12 + 4, 36 + (tones[0]) % 12 + 11, 36 + (tones[0]) % 12 + 16]

        def strike(t, l, keys=voicing, v=78):
            if t >= at + length - 1e-6 or t < at - 1:
                return
            for k, key in enumerate(keys):
                self.add(t + (0.012 * k if kind.startswith("strum") else 0), l, channel, key, v + rng.normal(0, 5))

        each = lambda unit, offset=0.0: [at + offset + i * unit for i in range(int(round((length - offset) / unit + 0.499)))]
        if kind == "none":
            return
        if kind in ("pad", "supersaw"):
            early = 0.5 if index and rng.random() < 0.08 and steps != 3 else 0
            strike(at - early, length + early, v=70)
        elif kind == "power":
            unit = self.pick([length, length, 1.0, 2.0])
            for t in each(min(unit, length)):
                strike(t, unit * 0.95, power, 92)
        elif kind == "power8":
            for i, t in enumerate(each(0.5)):
                strike(t, 0.4, power[:2], 96 if i % 2 == 0 else 80)
        elif kind == "chug":
            for t in each(0.25):
                if rng.random() < 0.7:
                    strike(t, 0.2, power[:2] if rng.random() < 0.3 else power[:1], 88)
        elif kind in ("strum8", "strum16", "strum2", "strum3"):
            unit = {"strum8": 0.5, "strum16": 0.25, "strum2": 0.5, "strum3": 1 / 3}[kind]
            for i, t in enumerate(each(unit)):
                on = i % round(1 / unit) == 0
                if on or rng.random() < 0.6:
                    strike(t, unit * 1.5, v=88 if on else 66)
        elif kind in ("piano4", "piano8"):
            for i, t in enumerate(each(1.0 if kind == "piano4" else 0.5)):
                strike(t, 0.8 if kind == "piano4" else 0.45, v=82 if i % 2 == 0 else 70)
        elif kind in ("arp8", "arp16", "arp2", "arp3", "triplets"):
            unit = {"arp8": 0.5, "arp16": 0.25, "arp2": 0.5, "arp3": 1 / 3, "triplets": 1 / 3}[kind]
            if steps == 3 and unit in (0.5, 0.25):
                unit = 1 / 3
            keys = voicing + [voicing[0] + 12, *voicing[::-1][:-1]]
            for i, t in enumerate(each(unit)):
                strike(t, unit * 1.8, [keys[i % len(keys)]] if kind != "triplets" else voicing, 84 if i % max(1, round(1 / unit)) == 0 else 70)
        elif kind in ("offs", "offs2"):
            for t in each(1.0, 0.5 if steps != 3 else 2 / 3):
                strike(t, 0.3, v=84)
        elif kind == "skank":
            for t in each(1.0, 0.5 if self.bpm < 84 and rng.random() < 0.99 else 0.5):
                strike(t, 0.2, v=92)
        elif kind in ("umpah", "umpah3"):
            for i in range(int(length)):
                if self.pulses == 2 and kind == "umpah3":
                    strike(at + i + 1 / 3, 0.2)
                    strike(at + i + 2 / 3, 0.2)
                elif i % self.pulses:
                    strike(at + i, 0.5)
        elif kind in ("stabs", "stab16", "loop", "montuno", "bossa", "charleston", "comp3"):
            if not hasattr(self, "_stab"):
                count = self.pulses * steps
                threes = "x..x..x." * count
                texts = {"stabs": [threes, "x.....x.........", "..x..x....x....."], "stab16": ["..x..x..x..x.xx.", "x..x..x...x.x..."], "loop": ["x.....x...x.....", "x..x....x.......", threes],
                         "montuno": ["x.xx.xx.x.x.x.x."], "bossa": ["x..x..x...x..x..", "x..x..x.x..x..x."], "charleston": ["x....x......"], "comp3": [".....x..x...", "x....x......", "..x..x..x..."]}
                self._stab = self.pick(texts[kind]) if steps != 3 or kind in ("charleston", "comp3") else "x....x......"
                self._stab = (self._stab * 4)[:count]
            start = int(round((at % self.pulses) * steps))
            for i in range(int(round(length * steps))):
                if self._stab[(start + i) % len(self._stab)] == "x":
                    strike(at + i / steps, 0.3, v=84)
        elif kind == "sixteenthstrings":
            for t in each(0.25):
                strike(t, 0.2, voicing[:2], 72)
        else:
            strike(at, length)

    def melody(self, at, bar, part):
        beats = self.pulses * 2
        offset = (bar % 2) * self.pulses
        for place, length, step in part["motif"]:
            if offset <= place < offset + self.pulses and self.rng.random() < 0.95:
                octave, degree = divmod(step + (0 if bar % 4 < 3 else 1), 7)
                self.add(at + place - offset, length * 0.95, 3, 67 + (self.key + self.scale[degree]) % 12 + 12 * octave, 84)

    def pickup(self, first):
        for i in range(abs(first) * 2):
            if self.rng.random() < 0.7 or i == 0:
                self.add(first + i / 2, 0.45, 3, 67 + (self.key + self.pick(self.scale)) % 12, 84)

    def hit(self, at):
        tones = [48 + tone for tone in self.chord(0)]
        for key in tones:
            self.add(at, 3, 1, key, 90)
        self.add(at, 3, 0, 28 + self.key % 12, 95)
        if "x" in self.spec["kick"][0]:
            self.add(at, 0.3, DRUM_CHANNEL, KICK, 110)
            self.add(at, 0.3, DRUM_CHANNEL, CRASH, 110)


HALF = ["........x.......", "........x.....?."]
