// Whether this screen takes and sends MIDI, and what is plugged in.

import { useStore } from 'zustand';
import { noteName } from '@hovlix/core/light';
import { useHovlix } from '../host/hovlix';
import { useSession } from '../host/session';
import { Quiet } from './pieces';
import { Switch } from './Switch';

export function MidiSwitch() {
  const app = useHovlix();
  const setMidi = useSession((session) => session.setMidi);
  const { state, inputs, outputs, last, why } = useStore(app.midi.store);
  return (
    <>
      <Switch
        label="MIDI of this screen"
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
      {state === 'on' && (
        <Quiet role="status">
          {inputs.length === 0 ? 'Nothing is plugged in that sends MIDI.' : `Listens to ${inputs.join(', ')}.`}
          {outputs.length > 0 ? ` Sends to ${outputs.join(', ')}.` : ''}
          {last ? ` Last note: ${noteName(last.note)} on channel ${last.channel}.` : ''}
        </Quiet>
      )}
    </>
  );
}
