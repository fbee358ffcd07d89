"""A piece of music as notes on a grid of felt beats, with its truth."""

from dataclasses import dataclass, field

DRUM_CHANNEL = 9


@dataclass
class Note:
    """A note. `at` and `length` in felt beats, `channel` 0 to 15 (9 is drums), `key` and `velocity` 0 to 127."""

    at: float
    length: float
    channel: int
    key: int
    velocity: int


@dataclass
class Piece:
    """Notes and truth. Beats are the whole numbers from `first_beat` to `last_beat`, both included."""

    name: str
    style: str
    bpm: float
    notes: list
    first_beat: int
    last_beat: int
    downbeats: list
    # (beat, label) of every section, rising; beats are downbeats.
    sections: list
    # General MIDI program of each channel.
    programs: dict = field(default_factory=dict)
    # 'machine' keeps its tempo; 'band' drifts; 'free' breathes.
    feel: str = "band"
    # False where bars, or sections, are not sure: they are left out of the loss.
    bars_known: bool = True
    sections_known: bool = True
    # True for drums that are synthesised instead of played from a soundfont.
    machine_drums: bool = False
    # Beats from which a lasting tempo change begins, as factors: {beat: factor}.
    tempo_steps: dict = field(default_factory=dict)
