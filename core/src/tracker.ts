// The beat of what a microphone hears: asked for where one is turned on.

export { beatTracker, type BeatTracker, type TrackedBeat } from './music/beat-tracker';
