// One control, fetched when it is first opened: two pages lead to it.

import { lazy, Suspense } from 'react';
import type { OpenedControlProps } from './opened-control';

const Opened = lazy(async () => ({ default: (await import('./opened-control')).OpenedControl }));

export function ControlSheet(props: OpenedControlProps) {
  return (
    <Suspense fallback={null}>
      <Opened {...props} />
    </Suspense>
  );
}
