// What keys do by themselves, in words: for the list of keys, and for the list of all that is bound.

export const KEYS = [
  ['Space', 'play or pause the song'],
  ['T', 'tap the tempo'],
  ['B', 'blackout'],
  ['M', 'freeze the light, and let it go on'],
  ['1 – 9, Q …', 'the pads of the bank, as they show it'],
  ['N, P', 'next and previous look of the bank'],
  ['G, H', 'on in the set list, and back'],
  ['Shift G, H', 'next and previous song of the set'],
  ['← →', 'walk the bars of a lead sheet'],
  ['Shift ← →', 'choose several bars'],
  ['Ctrl or ⌘ C, V', 'copy the chosen bars, and paste them'],
  ['Ctrl or ⌘ Z', 'undo'],
  ['Ctrl or ⌘ Shift Z', 'redo'],
  ['Enter', 'press what has the focus'],
  ['?', 'this list'],
] as const;
