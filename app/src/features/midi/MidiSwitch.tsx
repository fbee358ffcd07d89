// Whether this page takes and sends MIDI, and what is plugged in. The computer that conducts may do it instead.

import { useStore } from 'zustand';
import { useHovlix } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { Quiet } from '../../ui/pieces';
import { Switch } from '../../ui/Switch';
import { useComputerListens } from './use-computer';
import { MIDI, pluggedIn } from './words';

export function MidiSwitch() {
  const app = useHovlix();
  const setMidi = useSession((session) => session.setMidi);
  const { state, inputs, outputs, last, why } = useStore(app.midi.store);
  const yields = useComputerListens();
  return (
    <>
      <Switch
        label={MIDI.page}
        on={state !== 'off'}
        onChange={(on) => {
          setMidi(on);
          if (on) void app.midi.start(app);
          else app.midi.stop();
        }}
      />
      {why !== null && (
        <Quiet role="alert" color="$text">
          {why}
        </Quiet>
      )}
      {state === 'on' && !yields && <Quiet role="status">{pluggedIn(inputs, outputs, last)}</Quiet>}
      {state === 'on' && yields && <Quiet role="status">{MIDI.yields}</Quiet>}
    </>
  );
}
