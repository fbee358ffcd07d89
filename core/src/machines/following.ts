// What goes by another machine is looked at and put right alike, whatever it is told by.

/** How often what goes by another machine is put right. */
export const LOOK_MS = 50;
/** Less than this, in seconds, nobody sees; and so little of a tempo. */
export const DRIFT_SECONDS = 0.004;
export const DRIFT_TEMPO = 0.003;
/** Another device is listened to when this one has said nothing for so long, in seconds. */
export const GIVEN_UP_SECONDS = 5;

/** What is wished of clocks and timecode: asked each time. */
export type Wishes = {
  readonly follows: () => 'nothing' | 'tempo' | 'songs';
  readonly say: (text: string, bad: boolean) => void;
};
