"""Plays notes through soundfonts with FluidSynth's library; each font is loaded once for each process."""

import ctypes
import functools

import numpy as np

from .features import RATE

FOLDER = "/usr/share/sounds/"
_LIB = ctypes.CDLL("libfluidsynth.so.3")
for _name, _kinds in {
    "new_fluid_settings": (), "new_fluid_synth": (ctypes.c_void_p,), "fluid_synth_sfload": (ctypes.c_void_p, ctypes.c_char_p, ctypes.c_int),
    "fluid_settings_setnum": (ctypes.c_void_p, ctypes.c_char_p, ctypes.c_double), "fluid_settings_setint": (ctypes.c_void_p, ctypes.c_char_p, ctypes.c_int),
    "fluid_synth_set_interp_method": (ctypes.c_void_p, ctypes.c_int, ctypes.c_int), "fluid_synth_system_reset": (ctypes.c_void_p,),
    "fluid_synth_reverb_on": (ctypes.c_void_p, ctypes.c_int, ctypes.c_int),
    "fluid_synth_noteon": (ctypes.c_void_p,) + (ctypes.c_int,) * 3, "fluid_synth_noteoff": (ctypes.c_void_p,) + (ctypes.c_int,) * 2,
    "fluid_synth_program_change": (ctypes.c_void_p,) + (ctypes.c_int,) * 2, "fluid_synth_cc": (ctypes.c_void_p,) + (ctypes.c_int,) * 3,
    "fluid_synth_write_float": (ctypes.c_void_p, ctypes.c_int) + (ctypes.c_void_p, ctypes.c_int, ctypes.c_int) * 2,
}.items():
    getattr(_LIB, _name).argtypes = _kinds
    getattr(_LIB, _name).restype = ctypes.c_void_p if _name.startswith("new") else ctypes.c_int


@functools.cache
def _synth(font):
    settings = _LIB.new_fluid_settings()
    _LIB.fluid_settings_setnum(settings, b"synth.sample-rate", RATE)
    _LIB.fluid_settings_setnum(settings, b"synth.gain", 0.6)
    _LIB.fluid_settings_setint(settings, b"synth.polyphony", 64)
    _LIB.fluid_settings_setint(settings, b"synth.chorus.active", 0)
    synth = _LIB.new_fluid_synth(settings)
    if _LIB.fluid_synth_sfload(synth, (FOLDER + font).encode(), 1) < 0:
        raise FileNotFoundError(f"{FOLDER + font}: no soundfont there")
    # Linear: faster than the usual, and no beat sounds different for it.
    _LIB.fluid_synth_set_interp_method(synth, -1, 1)
    return synth


def play(events, programs, volumes, font, size, room):
    """Mono sound of `size` samples. `events`: (second, channel, key, velocity; 0 ends the note), in order."""
    synth = _synth(font)
    _LIB.fluid_synth_system_reset(synth)
    _LIB.fluid_synth_reverb_on(synth, -1, int(room))
    for channel, volume in volumes.items():
        _LIB.fluid_synth_program_change(synth, channel, programs.get(channel, 0))
        _LIB.fluid_synth_cc(synth, channel, 7, volume)
    left, right = np.zeros(size, np.float32), np.zeros(size, np.float32)
    at = 0

    def until(sample):
        nonlocal at
        if sample > at:
            _LIB.fluid_synth_write_float(synth, sample - at, left[at:].ctypes.data, 0, 1, right[at:].ctypes.data, 0, 1)
            at = sample

    for second, channel, key, velocity in events:
        until(min(size, max(0, int(second * RATE))))
        if velocity:
            _LIB.fluid_synth_noteon(synth, channel, key, velocity)
        else:
            _LIB.fluid_synth_noteoff(synth, channel, key)
    until(size)
    return (left + right) / 2
