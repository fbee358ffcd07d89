// What the list of music that comes in says.

export const WORDS = {
  broughtIn: 'Brought in',
  ofDone: (count: string | number, count2: string | number) => `${count} of ${count2} done`,
  toCheck: (doubtful: string | number) => `${doubtful} to check.`,
  clearTheList: 'Clear the list',
  cancelledNothingWas: 'Cancelled. Nothing was changed.',
  listeningTo: (name: string | number) => `Listening to ${name}`,
  clear: (name: string | number) => `Clear ${name}`,
  cancel: (name: string | number) => `Cancel ${name}`,
  outShowAgain: (song: string | number) => `“${song}” is out of this show again.`,
  nothingLikeWas: (song: string | number) => `Nothing like that was heard in “${song}”.`,
  bpm: (part: string | number, meterText: string | number, part2: string | number) =>
    `${part} bpm · ${meterText}${part2}`,
  anotherFileWhich: (like: string | number) => `Another file of “${like}”, which is in this show.`,
  isBack: (name: string | number) => `“${name}” is on this device again.`,
  takeItOut: 'Take it out',
  takeOutAgain: (song: string | number) => `Take ${song} out again`,
  check: 'Check',
  checkNamed: (song: string | number) => `Check ${song}`,
  half: 'Half',
  halfTempo: (song: string | number) => `Half the tempo of ${song}`,
  double: 'Double',
  doubleTempo: (song: string | number) => `Double the tempo of ${song}`,
};
