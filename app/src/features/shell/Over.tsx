// What lies over every place: the masters, the tempo, and what is asked before a show is opened.

import { useShows } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { fetched } from '../../ui/fetched';

const sheets = () => import('./over-sheets');
const session = () => useSession.getState();
const MastersSheet = fetched(async () => (await sheets()).MastersSheet, { close: () => session().setMasters(false) });
const TempoSheet = fetched(async () => (await sheets()).TempoSheet, { close: () => session().setTempo(false) });
const Question = fetched(async () => (await sheets()).Question);

export function Over() {
  const masters = useSession((state) => state.masters);
  const tempo = useSession((state) => state.tempo);
  const asking = useShows((state) => state.asking);
  return (
    <>
      {masters && <MastersSheet />}
      {tempo && <TempoSheet />}
      {asking && <Question asking={asking} />}
    </>
  );
}
