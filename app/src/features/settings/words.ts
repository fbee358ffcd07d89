// What Settings says.

export const WORDS = {
  backShows: 'Back to the shows',
  settings: 'Settings',
  theme: 'Theme',
  nightStage: 'Night, for the stage',
  dayTable: 'Day, for the table',
  flashSafety: 'Flash safety',
  noShowOpen: 'No show is open.',
  mostFlashesSecond: (most: string | number) => `At most ${most} flashes a second in this show.`,
  flashesNotLimited: 'Flashes are not limited in this show.',
  changeFlashSafety: 'Change flash safety',
  blackout: 'Blackout',
  fadeBlackoutSeconds: 'Fade of a blackout, seconds',
  thisScreen: 'This screen',
  rightsPhonesTablets: 'Rights of phones and tablets are given in Connect, on the computer.',
  dataDevice: 'Data on this device',
  browserHasPromised: 'The browser has promised to keep your shows and music.',
  whenStorageRuns: 'When storage runs out, a browser may delete what pages keep. Ask it to keep this.',
  keepThisData: 'Keep this data',
};
