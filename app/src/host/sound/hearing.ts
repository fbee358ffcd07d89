// What is told of a microphone that is listened to.

export type Hearing = {
  /** The loudest band, in dB below a sine at full scale. */
  readonly loudest: number;
  /** The beat that is followed, if any; one that is not sure is carried on. */
  readonly beat: { readonly bpm: number; readonly sure: boolean } | null;
};

/** The low end of a level meter, in dB: softer is silence. */
export const METER_LOW = -90;
