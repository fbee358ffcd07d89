// What is said between the page and the worker that listens. The page holds no code of the analysis, only what came of it.

import type { Analysis, Grid, Passage, Reading, Tags } from '@hovlix/core/analysis';
import type { Offset } from '@hovlix/core/music';
import type { Result } from '@hovlix/core/problem';

/** What the page's browser made of a file that the worker cannot unpack: it may be too long, or unknown to it too. */
export type Unpacked =
  | { readonly channels: readonly Float32Array<ArrayBuffer>[]; readonly rate: number }
  | 'too long'
  | 'unknown';

export type ToAnalysis =
  /** The answer to `unpack`. */
  | { readonly type: 'unpacked'; readonly sound: Unpacked }
  | { readonly type: 'analyse'; readonly file: File }
  | { readonly type: 'cancel' }
  /** Only its hash, and how it is to be kept: to know a file before it is. */
  | { readonly type: 'digest'; readonly file: File }
  /** How else music can be counted, by what was heard in it before. */
  | { readonly type: 'read'; readonly heard: Uint8Array; readonly name: string }
  /** How much later one recording is than another, by their peaks. */
  | { readonly type: 'compare'; readonly before: Uint8Array; readonly after: Uint8Array };

/** A recording that was listened to. */
export type Listened = {
  /** SHA-256 of the file as it is to be kept, in hexadecimal. */
  readonly hash: string;
  /** The file to be kept: AIFF, which few browsers play, becomes WAV, and so does what only a browser unpacks, as M4A. */
  readonly file: File;
  readonly tags: Tags;
  readonly analysis: Omit<Analysis, 'peaks' | 'envelopes' | 'heard'>;
  /** How sure its beats are, 0…1. */
  readonly sure: number;
  /** What is kept beside the music: the waveform, what followers hear, what was heard of its beats. */
  readonly kept: {
    readonly peaks: Uint8Array;
    readonly envelopes: Uint8Array<ArrayBuffer>;
    readonly heard: Uint8Array<ArrayBuffer>;
  };
};

/** How music was counted, how else it can be, and where it is in doubt. */
export type Readings = {
  readonly now: Grid;
  readonly others: readonly { readonly reading: Reading; readonly grid: Grid }[];
  readonly doubtful: readonly Passage[];
};

export type FromAnalysis =
  /** Asks the page for the sound of the file, which workers have no means for, at this rate. */
  | { readonly type: 'unpack'; readonly rate: number }
  | { readonly type: 'compared'; readonly offset: Offset }
  | { readonly type: 'progress'; readonly progress: number }
  | { readonly type: 'digest'; readonly hash: string; readonly file: File }
  | { readonly type: 'readings'; readonly readings: Result<Readings> }
  | { readonly type: 'done'; readonly result: Result<Listened> };
