// Pads to play a kit with, fetched when they are first shown: the first page has none.

import { lazy, Suspense } from 'react';
import type { HitPadsProps } from './struck-pads';

const Struck = lazy(async () => ({ default: (await import('./struck-pads')).StruckPads }));

export function HitPads(props: HitPadsProps) {
  return (
    <Suspense fallback={null}>
      <Struck {...props} />
    </Suspense>
  );
}
