// What the strip of the stage says.

export const WORDS = {
  chosen: (list: string | number) => `Chosen: ${list}`,
  chooseNone: (words: string | number) => `${words}. Choose none`,
  upFlashesSecond: (most: string | number) => `up to ${most} flashes a second`,
  flashSafety: (words: string | number) => `Flash safety: ${words}`,
  lightFrozenRelease: 'light frozen · release',
  lightFrozenReleaseSaid: 'Light frozen. Release',
  lightFrozen: 'light frozen',
  onlyScreenBack: 'Only on this screen. Back to the stage',
  output: (text: string | number) => `Output: ${text}`,
  masterOutput: 'Master output',
  weSendingDark: 'We are sending. For a dark stage use blackout below; this stops sending altogether.',
  noOutputYet: 'Nothing is sent anywhere yet. Choose under Connect where the light goes.',
  connect: 'Connect',
  weSendNothing: 'We send nothing at all. Lamps use their own no-signal setting.',
  release: (words: string | number) => `${words} · release`,
  byHandRelease: 'By hand. Release',
  byHand: 'By hand',
  stage: 'Stage',
  stageAsLit: 'The stage as it is lit now',
};
