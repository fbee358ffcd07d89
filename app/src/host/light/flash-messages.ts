import type { FlashStretch } from '@hovlix/core/engine';
import type { Show } from '@hovlix/core/show';

export type ToFlash = {
  readonly show: Show;
  readonly sounds: readonly { readonly hash: string; readonly bytes: Uint8Array }[];
};

export type FromFlash =
  | { readonly type: 'progress'; readonly progress: number }
  | { readonly type: 'done'; readonly found: readonly FlashStretch[] };
