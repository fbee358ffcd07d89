// Clocks of this page, while it listens to MIDI.

import { useStore } from 'zustand';
import { useHovlix } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { ClockFields } from './ClockFields';
import { useComputerListens } from './use-computer';

export function ClockSwitches() {
  const app = useHovlix();
  const follows = useSession((session) => session.follows);
  const sendsClock = useSession((session) => session.sendsClock);
  const setClock = useSession((session) => session.setClock);
  const on = useStore(app.midi.store, ({ state }) => state === 'on');
  const machines = useStore(app.outside);
  const yields = useComputerListens();
  if (!on || yields) return null;
  return <ClockFields {...machines} follows={follows} sendsClock={sendsClock} onChange={setClock} />;
}
