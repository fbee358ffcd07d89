// The tempo by what the microphone hears.

import { useStore } from 'zustand';
import { useHovlix } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { Column, Quiet } from '../../ui/pieces';
import { Switch } from '../../ui/Switch';
import { beatWords, MICROPHONE } from './words';

export function TempoFromMicrophone() {
  const { microphone } = useHovlix();
  const leads = useSession((session) => session.micLeads);
  const set = useSession((session) => session.setMicrophone);
  const { state, hearing, why } = useStore(microphone.store);
  const on = leads && state !== 'off';
  return (
    <Column gap={4}>
      <Switch
        label={MICROPHONE.leads}
        on={on}
        onChange={(to) => {
          set({ micLeads: to });
          if (to) void microphone.start();
        }}
      />
      {!on && <Quiet>{MICROPHONE.leadsHint}</Quiet>}
      {leads && why !== null && (
        <Quiet role="alert" color="$text">
          {why}
        </Quiet>
      )}
      {on && state === 'asking' && <Quiet>{MICROPHONE.asking}</Quiet>}
      {on && state === 'on' && (
        <Quiet role="status" testID="heard-beat">
          {beatWords(hearing?.beat ?? null)}
        </Quiet>
      )}
    </Column>
  );
}
