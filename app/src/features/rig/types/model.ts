import type { Channel } from '@hovlix/core/rig';

/** “3 ranges”; nothing where there are none. */
export function rangeCount({ ranges }: Channel): string {
  if (ranges.length === 0) return '';
  return ranges.length === 1 ? '1 range' : `${ranges.length} ranges`;
}
