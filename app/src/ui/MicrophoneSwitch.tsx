// Turns this screen's microphone on and off, and says what keeps it from being heard.

import { useStore } from 'zustand';
import { useHovlix, useLive } from '../host/hovlix';
import { Column, Quiet } from './pieces';
import { Switch } from './Switch';

export function MicrophoneSwitch() {
  const app = useHovlix();
  const { state, why } = useStore(app.microphone.store);
  const by = useLive((live) => live.hearing?.by);
  const elsewhere = by !== undefined && by !== app.conducting.screen && state === 'off';
  return (
    <Column gap={4}>
      <Switch
        label="Microphone of this screen"
        on={state !== 'off'}
        onChange={(on) => (on ? void app.microphone.start() : app.microphone.stop())}
      />
      {state === 'asking' && <Quiet>The browser asks whether Hovlix may listen.</Quiet>}
      {why !== null && (
        <Quiet role="alert" color="$text">
          {why}
        </Quiet>
      )}
      {elsewhere && <Quiet>Another screen has listened last.</Quiet>}
    </Column>
  );
}
