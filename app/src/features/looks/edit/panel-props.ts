import type { LookValue, Saying } from '@hovlix/core/light';
import type { Patched } from '@hovlix/core/rig';

export type PanelProps = {
  readonly lamps: readonly Patched[];
  /** What all of them hear. */
  readonly heard: LookValue;
  readonly onSay: (saying: Saying, gesture?: string) => void;
};
