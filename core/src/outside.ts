// Clocks and timecode of other machines. Followed where MIDI is listened to: a page that does not has no need of it.

export * from './time/midi-clock';
export * from './time/midi-timecode';
