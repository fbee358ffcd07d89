// What the report on flashes says.

export const WORDS = {
  flashSafety: 'Flash safety',
  backGig: 'Back to the gig',
  mostSecond: (most: string | number, part: string | number) => `On: at most ${most} ${part} a second`,
  moreThanThree:
    'More than three flashes a second can cause seizures. While it is on, strobes, waves, chases, followers and hits that would flash more of the rig than a tenth of its light are slowed by halves, so that they stay in time. What still comes together waits for its turn, also when it is pressed. Darkness never waits.',
  flashesASecond: 'Flashes a second',
  moreThanThreeSecond: 'More than three a second is more than WCAG 2.2 and ITU-R BT.1702 hold to be safe.',
  holdTurnOff: 'Hold to turn it off',
  flashesNotLimited: 'Flashes are not limited any more. A mark beside the output says so.',
  turnItOn: 'Turn it on',
  whereItActs: 'Where it acts',
  countAgain: 'Count again',
  countFlashesShow: 'Count the flashes of this show',
  counting: (part: string | number) => `Counting: ${part} %`,
  stop: 'Stop',
  showHasChanged: 'The show has changed since it was counted.',
  nowhereNoSong: (most: string | number) => `Nowhere: no song and no look flashes more than ${most} times a second.`,
  countedLightWhole: (count: string | number, part: string | number) =>
    `Counted in the light of the whole rig, ${count} ${part} from end to end, and each look and chase by itself at 120 beats a minute. What is played by hand tonight is not in it.`,
  secondFlashSafety: (made: string | number, leaves: string | number) =>
    `${made} a second, ${leaves} with flash safety: still too many. Longer clips and slower fades help.`,
};
