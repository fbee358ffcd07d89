// What goes by a MIDI clock or timecode from outside, and whether ours is sent.

import type { MachinesState } from '@hovlix/core/machines';
import type { MidiIn } from '@hovlix/core/connect';
import { Column, Quiet } from '../../ui/pieces';
import { Segments } from '../../ui/Segments';
import { Switch } from '../../ui/Switch';
import { clockWords, MIDI, timecodeWords, WORDS } from './words';

type Wishes = Pick<MidiIn, 'follows' | 'sendsClock'>;
type Props = Wishes & MachinesState & { readonly onChange: (change: Partial<Wishes>) => void };

export function ClockFields({ follows, sendsClock, clock, timecode, onChange }: Props) {
  return (
    <Column gap={8}>
      <Segments
        label={MIDI.leads}
        titled
        value={follows}
        choices={[
          { value: 'nothing', name: WORDS.nothing },
          { value: 'tempo', name: WORDS.theTempo },
          { value: 'songs', name: WORDS.tempoAndSongs },
        ]}
        onChoose={(next) => onChange({ follows: next })}
      />
      <Quiet role="status" testID="clock">
        {clockWords(clock)}
      </Quiet>
      {timecode && (
        <Quiet role="status" testID="timecode">
          {timecodeWords(timecode)}
        </Quiet>
      )}
      {follows === 'songs' && <Quiet>{MIDI.byPlan}</Quiet>}
      <Switch label={MIDI.sends} on={sendsClock} onChange={(sends) => onChange({ sendsClock: sends })} />
    </Column>
  );
}
