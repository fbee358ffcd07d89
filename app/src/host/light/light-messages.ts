// What the page and the light worker say to each other.

import type { Explanation } from '@hovlix/core/engine';
import type { LookValue } from '@hovlix/core/light';
import type { Entry, LiveState } from '@hovlix/core/live';
import type { Gobo, Mount, Shape } from '@hovlix/core/rig';
import type { Ops, Show } from '@hovlix/core/show';

/** What a picture needs to know of each head beside its light. */
export type StageHead = {
  readonly fixture: string;
  readonly number: number;
  readonly kind: string;
  readonly beamAngle: number;
  readonly output: number;
  readonly cell: number;
  readonly cells: number;
  readonly mount: Mount;
  /** Patterns of the gobo wheel by slot. */
  readonly patterns: readonly Gobo['pattern'][];
};

/** A canvas of the page, or one it has given away. */
export type StageCanvas = OffscreenCanvas | HTMLCanvasElement;

/** What the page tells of the canvas that the stage is painted on. */
export type ToStage =
  /** It is painted from now on; the canvas comes along the first time. */
  | { readonly type: 'stage'; readonly surface: number; readonly canvas?: StageCanvas }
  /** In pixels of the page; `scale` pixels of the screen for each. */
  | { readonly type: 'stage-size'; readonly width: number; readonly height: number; readonly scale: number }
  /** Lamps with a ring around them. */
  | { readonly type: 'stage-marked'; readonly fixtures: readonly string[] }
  /** Nobody looks at it. */
  | { readonly type: 'stage-off'; readonly surface: number }
  /** It does not come back. */
  | { readonly type: 'stage-gone'; readonly surface: number };

export type ToLight =
  | ToStage
  | { readonly type: 'show'; readonly show: Show }
  /** What changed of it. */
  | { readonly type: 'edit'; readonly ops: Ops }
  /** What followers hear in a song, as `readEnvelopes` takes it. */
  | { readonly type: 'sound'; readonly hash: string; readonly bytes: Uint8Array }
  /** `now` is the conductor's clock minus this machine's, in seconds. */
  | { readonly type: 'clock'; readonly offset: number }
  | { readonly type: 'state'; readonly state: LiveState }
  | { readonly type: 'entry'; readonly entry: Entry }
  /** Levels with another program's light in them, as they leave; forgotten when no more come. */
  | { readonly type: 'theirs'; readonly universe: number; readonly levels: Uint8Array }
  | { readonly type: 'frames'; readonly on: boolean }
  | { readonly type: 'spent'; readonly lamps: Float32Array<ArrayBuffer> }
  | {
      readonly type: 'ribbon';
      readonly id: number;
      readonly song: string;
      readonly roles: readonly string[];
      readonly times: readonly number[];
    }
  /** How a show's rig looks in one of its looks, without opening it. */
  | { readonly type: 'portrait'; readonly id: number; readonly show: Show }
  /** A look or a chase by its id, or values that are stored nowhere yet. */
  | { readonly type: 'picture'; readonly id: number; readonly look: string | readonly LookValue[] }
  /** Now, or at a moment of a song that plays by itself. */
  | { readonly type: 'explain'; readonly id: number; readonly fixture: string; readonly when: When };

/** Now, or so many seconds into a song. */
export type When = 'now' | { readonly song: string; readonly time: number };

export type FromLight =
  | {
      readonly type: 'heads';
      readonly heads: readonly StageHead[];
      readonly shapes: readonly Shape[];
      readonly universes: readonly number[];
      readonly notes: readonly string[];
    }
  | { readonly type: 'frame'; readonly lamps: Float32Array<ArrayBuffer> }
  | {
      readonly type: 'portrait';
      readonly id: number;
      readonly heads: readonly StageHead[];
      readonly shapes: readonly Shape[];
      readonly lamps: Float32Array<ArrayBuffer>;
    }
  | {
      readonly type: 'answer';
      readonly id: number;
      readonly value: Uint8ClampedArray<ArrayBuffer> | Float32Array<ArrayBuffer> | Explanation | null;
    };
