// What comes in from feet and hands: where it is set up, and whether MIDI is heard.

import { useRouter } from 'expo-router';
import { useShow } from '../../host/hovlix';
import { Card } from '../../ui/card';
import { MidiSwitch } from '../midi/MidiSwitch';
import { Button, Quiet } from '../../ui/pieces';

export function PedalsCard() {
  const router = useRouter();
  const count = useShow((show) => show.controls.length) ?? 0;
  return (
    <Card title="Pedals and MIDI" action={<Button onPress={() => router.push('/gig/pedals')}>Set up</Button>}>
      <Quiet>
        {count === 0
          ? 'No pedal, key or knob does anything yet.'
          : `${count} ${count === 1 ? 'control does' : 'controls do'} something. They work in every place.`}
      </Quiet>
      <MidiSwitch />
    </Card>
  );
}
