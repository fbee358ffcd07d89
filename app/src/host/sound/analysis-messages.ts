import type { Result } from '@hovlix/core/problem';
import type { Analysis } from '@hovlix/core/music';

export type ToAnalysis = { readonly type: 'analyse'; readonly file: File } | { readonly type: 'cancel' };

export type FromAnalysis =
  | { readonly type: 'progress'; readonly progress: number }
  /** `hash` is the SHA-256 of the file, in hexadecimal. */
  | { readonly type: 'done'; readonly result: Result<Analysis>; readonly hash: string };
