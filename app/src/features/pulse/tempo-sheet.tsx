// The tempo: typed, halved, doubled, its beats moved, and what leads it.

import type { Act } from '@hovlix/core/gig';
import { whenOf } from '../../host/conduct/local-clock';
import { doAct } from '../../host/controls/act';
import { useHovlix, useLive } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { TempoFromMicrophone } from '../microphone/TempoFromMicrophone';
import { ClockSwitches } from '../midi/ClockSwitches';
import { decimal, Typed } from '../../ui/form';
import { Button, Quiet, Row } from '../../ui/pieces';
import { Sheet } from '../../ui/Sheet';
import { WORDS } from './words';

type Key = { readonly name: string; readonly act: Act; readonly label?: string };

const CHANGES: readonly Key[] = [
  { name: '½', label: WORDS.halfTheTempo, act: { act: 'tempo', to: 'half' } },
  { name: '− 1', label: '1 bpm slower', act: { act: 'tempo', to: 'slower' } },
  { name: '+ 1', label: '1 bpm faster', act: { act: 'tempo', to: 'faster' } },
  { name: '× 2', label: WORDS.doubleTheTempo, act: { act: 'tempo', to: 'double' } },
];
const MOVES: readonly Key[] = [
  { name: 'Earlier', label: WORDS.beats10Ms, act: { act: 'nudge', by: -0.01 } },
  { name: 'Later', label: WORDS.beats10MsLater, act: { act: 'nudge', by: 0.01 } },
];
const ONE: Act = { act: 'tempo', to: 'one' };

export function TempoSheet() {
  const app = useHovlix();
  const setTempo = useSession((session) => session.setTempo);
  const bpm = useLive((live) => Math.round(live.tempo.bpm * 10) / 10);
  const playing = useLive((live) => live.song?.playing === true);
  const keys = (all: readonly Key[]) =>
    all.map(({ name, label, act }) => (
      <Button key={name} label={label ?? name} onPress={() => doAct(app, act)}>
        {name}
      </Button>
    ));
  return (
    <Sheet title={WORDS.tempo} low onClose={() => setTempo(false)}>
      {playing && <Quiet>{WORDS.songKeepsItsOwn}</Quiet>}
      <Typed
        label={WORDS.beatsAMinute}
        value={bpm}
        read={decimal(30, 400)}
        onChange={(to) => app.conducting.act({ type: 'tempo', bpm: to })}
        numeric
      />
      <Row gap={8} flexWrap="wrap" role="group" aria-label={WORDS.changeTheTempo}>
        {keys(CHANGES)}
      </Row>
      <Row gap={8} flexWrap="wrap" role="group" aria-label={WORDS.moveTheBeats}>
        {keys(MOVES)}
        <Button label={WORDS.barStartsNow} onDown={(event) => doAct(app, ONE, true, whenOf(event))}>
          {WORDS.barStartsNow}
        </Button>
      </Row>
      <TempoFromMicrophone />
      <ClockSwitches />
    </Sheet>
  );
}
