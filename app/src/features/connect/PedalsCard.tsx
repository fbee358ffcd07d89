// What comes in from feet and hands: where it is set up, and whether MIDI is heard.

import { useRouter } from 'expo-router';
import { useShow } from '../../host/hovlix';
import { Card } from '../../ui/card';
import { MidiSwitch } from '../midi/MidiSwitch';
import { Button, Quiet } from '../../ui/pieces';
import { WORDS } from './words';

export function PedalsCard() {
  const router = useRouter();
  const count = useShow((show) => show.controls.length) ?? 0;
  return (
    <Card
      title={WORDS.pedalsAndMidi}
      action={<Button onPress={() => router.push('/gig/pedals')}>{WORDS.setUp}</Button>}
    >
      <Quiet>
        {count === 0 ? WORDS.noPedalKey : WORDS.somethingTheyWork(count, count === 1 ? 'control does' : 'controls do')}
      </Quiet>
      <MidiSwitch />
    </Card>
  );
}
