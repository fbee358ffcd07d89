// The tempo's own sheet, fetched when it is first opened.

import { lazy, Suspense } from 'react';
import { useSession } from '../../host/session';

const Opened = lazy(async () => ({ default: (await import('./tempo-sheet')).TempoSheet }));

export function Tempo() {
  const open = useSession((session) => session.tempo);
  if (!open) return null;
  return (
    <Suspense fallback={null}>
      <Opened />
    </Suspense>
  );
}
