/** What pressing a pad does: on and off in turn, only on, only off, or on for as long as it is pressed. */
export const PRESSES = ['toggle', 'start', 'stop', 'flash'] as const;
export type Press = (typeof PRESSES)[number];
