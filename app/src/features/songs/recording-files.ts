/** What a recording may come as, for whoever chooses a file. */
export const RECORDING_FILES = '.wav,.aif,.aiff,.flac,.mp3,.ogg,.opus,.m4a,audio/*';
