// What goes by a MIDI clock or timecode from outside, and whether ours is sent.

import { useStore } from 'zustand';
import { useHovlix } from '../host/hovlix';
import { useSession } from '../host/session';
import { Column, Quiet } from './pieces';
import { Segments } from './Segments';
import { Switch } from './Switch';

export function ClockSwitches() {
  const app = useHovlix();
  const follows = useSession((session) => session.follows);
  const sendsClock = useSession((session) => session.sendsClock);
  const setClock = useSession((session) => session.setClock);
  const on = useStore(app.midi.store, ({ state }) => state === 'on');
  const clock = useStore(app.outside, (state) => state.clock);
  const timecode = useStore(app.outside, (state) => state.timecode);
  if (!on) return null;
  return (
    <Column gap={8}>
      <Segments
        label="MIDI clock from outside leads"
        titled
        value={follows}
        choices={[
          { value: 'nothing', name: 'Nothing' },
          { value: 'tempo', name: 'The tempo' },
          { value: 'songs', name: 'Tempo and songs' },
        ]}
        onChoose={(next) => setClock({ follows: next })}
      />
      <Quiet role="status" testID="clock">
        {clock ? `${clock.device}: ${WORDS[clock.state]}${clock.bpm === null ? '' : `, ${clock.bpm.toFixed(1)} bpm`}` : 'No clock comes in.'}
      </Quiet>
      {timecode && (
        <Quiet role="status" testID="timecode">
          {`${timecode.device}: timecode ${timecode.text} ${WORDS[timecode.state]}${timecode.frames ? `, ${timecode.frames} frames a second` : ''}`}
        </Quiet>
      )}
      {follows === 'songs' && <Quiet>Start plays the song that is next, stop stops it. Timecode plays the song that begins at that time: press a song’s title to set it. The music is not played here.</Quiet>}
      <Switch label="Send our clock to other gear" on={sendsClock} onChange={(sends) => setClock({ sendsClock: sends })} />
    </Column>
  );
} // prettier-ignore

const WORDS = { none: 'nothing yet', running: 'runs', stopped: 'stopped', lost: 'fell silent' } as const;
