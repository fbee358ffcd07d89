// What the list of shows says.

export const WORDS = {
  showCannotRead: 'That show cannot be read here.',
  exportedAs: (file: string | number) => `Exported as ${file}`,
  exportedWithout: (file: string | number, music: string | number) =>
    `Exported as ${file}, without music that is not on this device: ${music}.`,
  isDeleted: (entry: string | number) => `“${entry}” is deleted.`,
  putShow: 'Put this show on',
  onlyLookInto: 'Only look into it here',
  itsLightScreen: 'Its light is on this screen alone; the stage keeps what it has.',
  name: 'Name',
  export: 'Export',
  duplicate: 'Duplicate',
  openPutAnother: 'It is open. Put another show on first, then this one can be deleted.',
  holdToDelete: 'Hold to delete',
  noFileWas: 'No file of it was written since it was changed last: this may be the only copy.',
  delete: 'Delete',
  shows: 'Shows',
  settings: 'Settings',
  openHovlixFile: 'Open a .hovlix file',
  openAFile: 'Open a file',
  beginMyOwn: 'Begin my own show',
  myShow: 'My show',
  lookAroundDemo: 'Look around in the demo',
  open: (entry: string | number) => `Open ${entry}`,
  changed: 'changed ',
  moreAbout: (entry: string | number) => `More about ${entry}`,
  goFirstSteps: 'Go on with the first steps',
  keptDeviceLeft: (sizeText: string | number, sizeText2: string | number, part: string | number) =>
    `${sizeText} kept on this device, ${sizeText2} left.${part}`,
  storageDeviceAlmost: 'Storage on this device is almost full. Export shows you do not need here, then delete them.',
  minAgo: (minutes: string | number) => `${minutes} min ago`,
};
