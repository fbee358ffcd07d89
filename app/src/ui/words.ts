// What the pieces themselves say, in any room.

/** What is wrong with what was typed. */
export const WRONG = {
  whole: (low: number, high: number) => `A whole number from ${low} to ${high}.`,
  number: (low: number, high: number) => `A number from ${low} to ${high}.`,
  nameless: 'A name, please.',
  long: (most: number) => `At most ${most} letters.`,
};

export const WORDS = {
  close: 'Close',
  notHere: (value: string) => `${value} (not here)`,
  typed: (label: string) => `${label}, typed`,
  pressAndHold: 'Press and hold',
  holdToStopSending: 'Hold to stop sending',
  move: (name: string) => `Move ${name}`,
  noLampsInThisRig: 'No lamps for it in this rig',
  opened: (file: string) => `Opened ${file}`,
  nobodyPlaysIt: 'Nobody can play it yet: this show has no role. Roles are made in Rig.',
  padsOf: (kit: string) => `Pads of ${kit}`,
  strike: (hit: string) => `Strike ${hit}`,
  loadingPlace: 'Loading this place…',
  nothingHere: 'There is nothing here',
  notFetched: 'This could not be fetched: the server does not answer. Try again when it is back.',
  comesWhenServerIsBack:
    'A part of this page could not be fetched: the server does not answer. It comes when the server is back.',
};

/** Where to go from an address that leads nowhere. */
export const WAYS = {
  songs: 'To the songs',
  looks: 'To the looks',
  rig: 'To the rig',
  gig: 'To the gig',
  connect: 'To Connect',
  shows: 'To the shows',
};

/** The pad that steers a beam. */
export const STEER = {
  pad: 'Steer the beam',
  at: (pan: string, tilt: string) => `pan ${pan} degrees, tilt ${tilt} degrees`,
  shown: (pan: string, tilt: string) => `pan ${pan}° tilt ${tilt}°`,
  speed: 'Speed of the pad',
  coarse: 'Coarse',
  fine: 'Fine',
  left: 'Pan left',
  right: 'Pan right',
  up: 'Tilt up',
  down: 'Tilt down',
};
