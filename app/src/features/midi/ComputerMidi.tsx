// MIDI ports of the computer that conducts: they work with no page open.

import { useQuery } from '@tanstack/react-query';
import { NO_MIDI, type MidiIn } from '@hovlix/core/connect';
import { statusQuery } from '../../data/queries';
import { useConnections, useHovlix, useLink, useMay } from '../../host/hovlix';
import { State } from '../../ui/card';
import { Column, Quiet } from '../../ui/pieces';
import { Switch } from '../../ui/Switch';
import { ClockFields } from './ClockFields';
import { StandInFoot } from './StandInFoot';
import { MIDI, pluggedIn } from './words';

export function ComputerMidi() {
  const app = useHovlix();
  const served = useLink(({ conductor }) => conductor === 'server');
  const own = useLink(({ device }) => device === null);
  const may = useMay('operator');
  const midi = useConnections((state) => state.connections?.midi) ?? NO_MIDI;
  const { data: status } = useQuery(statusQuery(served));
  if (!served || !may) return null;
  const set = (change: Partial<MidiIn>) => app.connections.make({ type: 'set-midi', midi: { ...midi, ...change } });
  const heard = midi.on ? status?.midi : null;
  return (
    <Column gap={8} role="group" aria-label={MIDI.computer}>
      <Switch label={MIDI.computer} on={midi.on} onChange={(on) => set({ on })} />
      <Quiet>{midi.on ? MIDI.computerOn : MIDI.computerOff}</Quiet>
      {heard && (
        <>
          {heard.deaf !== null && <State colour="$fault" word={heard.deaf} />}
          {(heard.deaf === null || heard.inputs.length > 0) && (
            <Quiet role="status" testID="computer-midi">
              {pluggedIn(heard.inputs, heard.outputs, heard.last)}
            </Quiet>
          )}
          {own && status?.node && <StandInFoot />}
          <ClockFields
            clock={heard.clock}
            timecode={heard.timecode && { ...heard.timecode, frames: heard.timecode.frames }}
            follows={midi.follows}
            sendsClock={midi.sendsClock}
            onChange={set}
          />
        </>
      )}
    </Column>
  );
}
