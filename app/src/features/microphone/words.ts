// What is said of the microphone.

export const MICROPHONE = {
  on: 'Microphone of this screen',
  asking: 'The browser asks whether Hovlix may listen.',
  elsewhere: 'Another screen was listening last.',
  meter: 'Input level',
  gain: 'Gain',
  gate: 'Gate, ignore below',
  leads: 'The tempo follows the microphone',
  leadsHint: 'A few seconds of a steady beat are enough. Tap, and it follows your count.',
  noBeat: 'No beat heard yet.',
} as const;

export const beatWords = (beat: { readonly bpm: number; readonly sure: boolean } | null): string =>
  beat === null
    ? MICROPHONE.noBeat
    : beat.sure
      ? `Hears ${beat.bpm.toFixed(1)} bpm.`
      : `No beat heard now. The tempo stays at ${beat.bpm.toFixed(1)} bpm.`;
