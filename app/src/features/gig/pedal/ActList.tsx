// What one gesture does, fetched when it is first shown: a page that plays does not choose.

import { lazy, Suspense } from 'react';
import type { ActListProps } from './listed-acts';

const Listed = lazy(async () => ({ default: (await import('./listed-acts')).ListedActs }));

export function ActList(props: ActListProps) {
  return (
    <Suspense fallback={null}>
      <Listed {...props} />
    </Suspense>
  );
}
