// Turns this screen's microphone on and off, says what keeps it from being heard, and how loud it is.

import { useStore } from 'zustand';
import { View } from '@tamagui/core';
import { useHovlix, useLive } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { METER_LOW } from '../../host/sound/hearing';
import { Column, Quiet } from '../../ui/pieces';
import { Slider } from '../../ui/Slider';
import { Switch } from '../../ui/Switch';
import { MICROPHONE } from './words';

export function MicrophoneSwitch() {
  const app = useHovlix();
  const state = useStore(app.microphone.store, (one) => one.state);
  const why = useStore(app.microphone.store, (one) => one.why);
  const by = useLive((live) => live.hearing?.by);
  const elsewhere = by !== undefined && by !== app.conducting.screen && state === 'off';
  return (
    <Column gap={4}>
      <Switch
        label={MICROPHONE.on}
        on={state !== 'off'}
        onChange={(on) => (on ? void app.microphone.start() : app.microphone.stop())}
      />
      {state === 'asking' && <Quiet>{MICROPHONE.asking}</Quiet>}
      {why !== null && (
        <Quiet role="alert" color="$text">
          {why}
        </Quiet>
      )}
      {elsewhere && <Quiet>{MICROPHONE.elsewhere}</Quiet>}
      {state === 'on' && <Levels />}
    </Column>
  );
}

/** The meter, with what is made louder for lamps, and what is too soft to be heard. */
function Levels() {
  const app = useHovlix();
  const loudest = useStore(app.microphone.store, (one) => Math.round(one.hearing?.loudest ?? METER_LOW));
  const gain = useSession((session) => session.micGain);
  const gate = useSession((session) => session.micGate);
  const set = useSession((session) => session.setMicrophone);
  const share = (db: number) => `${Math.max(0, Math.min(100, (1 - db / METER_LOW) * 100))}%` as const;
  const open = loudest >= gate;
  return (
    <Column gap={10} paddingTop={4}>
      <View
        role="meter"
        aria-label={MICROPHONE.meter}
        aria-valuemin={METER_LOW}
        aria-valuemax={0}
        aria-valuenow={loudest}
        aria-valuetext={`${loudest} dB`}
        height={14}
        borderRadius={7}
        overflow="hidden"
        backgroundColor="$sunken"
      >
        <View height="100%" width={share(loudest)} backgroundColor={open ? '$live' : '$faint'} />
        <View position="absolute" top={0} bottom={0} left={share(gate)} width={2} backgroundColor="$text" />
      </View>
      <Slider
        label={MICROPHONE.gain}
        value={gain}
        low={-30}
        high={30}
        step={1}
        unit="dB"
        onChange={(to) => set({ micGain: to })}
      />
      <Slider
        label={MICROPHONE.gate}
        value={gate}
        low={-90}
        high={0}
        step={1}
        unit="dB"
        onChange={(to) => set({ micGate: to })}
      />
    </Column>
  );
}
