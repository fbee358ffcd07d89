// What lies over every place: the masters, the tempo, and what is asked before a show is opened.

import { lazy, Suspense } from 'react';
import { useShows } from '../../host/hovlix';
import { useSession } from '../../host/session';

const sheets = () => import('./over-sheets');
const MastersSheet = lazy(async () => ({ default: (await sheets()).MastersSheet }));
const TempoSheet = lazy(async () => ({ default: (await sheets()).TempoSheet }));
const Question = lazy(async () => ({ default: (await sheets()).Question }));

export function Over() {
  const masters = useSession((session) => session.masters);
  const tempo = useSession((session) => session.tempo);
  const asking = useShows((state) => state.asking);
  return (
    <Suspense fallback={null}>
      {masters && <MastersSheet />}
      {tempo && <TempoSheet />}
      {asking && <Question asking={asking} />}
    </Suspense>
  );
}
