import type { Result } from '@hovlix/core/problem';
import type { Analysis, Offset } from '@hovlix/core/music';

export type ToAnalysis =
  | { readonly type: 'analyse'; readonly file: File }
  | { readonly type: 'cancel' }
  /** How much later one recording is than another, by their peaks. */
  | { readonly type: 'compare'; readonly before: Uint8Array; readonly after: Uint8Array };

export type FromAnalysis =
  | { readonly type: 'compared'; readonly offset: Offset }
  | { readonly type: 'progress'; readonly progress: number }
  /** `hash` is the SHA-256 of the file, in hexadecimal. */
  | { readonly type: 'done'; readonly result: Result<Analysis>; readonly hash: string };
