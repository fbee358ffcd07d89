// How this device plays songs while one works on them.

import { useStore } from 'zustand';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Column, Quiet, Words } from '../../../ui/pieces';
import { Segments } from '../../../ui/Segments';
import { Slider } from '../../../ui/Slider';
import { Switch } from '../../../ui/Switch';

const LEADS = [
  { value: '0', name: 'At the bar' },
  { value: '1', name: 'A bar before' },
  { value: '2', name: 'Two bars' },
] as const;

export function Playback() {
  const { player, click } = useHovlix();
  const { volume, muted } = useStore(player.store);
  const { on: clicks, hits } = useStore(click.store);
  const { leadIn, follow, setRehearsal } = useSession();
  return (
    <Column gap={8} role="group" aria-label="Playback on this device">
      <Words fontWeight="600">Playback on this device</Words>
      <Slider
        label="Music"
        value={volume * 100}
        low={0}
        high={100}
        step={5}
        unit="%"
        onChange={(to) => player.loud(to / 100, muted)}
      />
      <Switch label="Mute the music" on={muted} onChange={(on) => player.loud(volume, on)} />
      <Switch label="Click on each beat while the song plays" on={clicks} onChange={click.turn} />
      <Switch label="Hear the hits, as drums" on={hits} onChange={click.turnHits} />
      <Switch label="The sheet follows the music" on={follow} onChange={(on) => setRehearsal({ follow: on })} />
      <Column gap={6}>
        <Quiet fontWeight="600">“Play from here” and loops begin</Quiet>
        <Segments
          label="Play from here begins"
          value={String(leadIn)}
          choices={LEADS}
          onChoose={(bars) => setRehearsal({ leadIn: Number(bars) })}
        />
      </Column>
    </Column>
  );
}
