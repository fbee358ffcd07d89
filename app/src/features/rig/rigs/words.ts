// What the list of rigs says.

import { counted } from '@hovlix/core/counted';

export const WORDS = {
  rigs: 'Rigs',
  oneShowMany: 'One show, many rigs: only the lamps that play each role change.',
  inUse: 'in use',
  playHere: 'Play here …',
  playIn: (rig: string | number) => `Play in ${rig}`,
  nameRig: 'Name of this rig',
  newRig: 'New rig',
  rig: (part: string | number) => `Rig ${part}`,
  emptyRigAdd: 'An empty rig. Add the lamps that hang there.',
  copyThisRig: 'Copy this rig',
  copy: (here: string | number) => `${here}, copy`,
  removeThisRig: 'Remove this rig',
  isGone: (here: string | number) => `${here} is gone.`,
  fromLampsTap: (from: string | number, count: number, to: string | number, count2: string | number) =>
    `From ${from} (${counted(count, 'lamp')}) to ${to} (${count2}). Tap a role to choose who plays it.`,
  showPlaysNow: (to: string | number) => `The show plays in ${to} now.`,
  notNow: 'Not now',
  nothingIsLost: 'Nothing is lost.',
  whoPlays: (role: string | number) => `Who plays ${role}`,
};
