// How this device plays songs while one works on them.

import { useStore } from 'zustand';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Column, Quiet, Words } from '../../../ui/pieces';
import { Segments } from '../../../ui/Segments';
import { Slider } from '../../../ui/Slider';
import { Switch } from '../../../ui/Switch';
import { WORDS } from './words';

const LEADS = [
  { value: '0', name: WORDS.atTheBar },
  { value: '1', name: 'A bar before' },
  { value: '2', name: WORDS.twoBars },
] as const;

export function Playback() {
  const { player, click } = useHovlix();
  const { volume, muted } = useStore(player.store);
  const { on: clicks, hits } = useStore(click.store);
  const { leadIn, follow, setRehearsal } = useSession();
  return (
    <Column gap={8} role="group" aria-label={WORDS.playbackDevice}>
      <Words fontWeight="600">{WORDS.playbackDevice}</Words>
      <Slider
        label={WORDS.music}
        value={volume * 100}
        low={0}
        high={100}
        step={5}
        unit="%"
        onChange={(to) => player.loud(to / 100, muted)}
      />
      <Switch label={WORDS.muteTheMusic} on={muted} onChange={(on) => player.loud(volume, on)} />
      <Switch label={WORDS.clickEachBeat} on={clicks} onChange={click.turn} />
      <Switch label={WORDS.hearHitsAs} on={hits} onChange={click.turnHits} />
      <Switch label={WORDS.sheetFollowsMusic} on={follow} onChange={(on) => setRehearsal({ follow: on })} />
      <Column gap={6}>
        <Quiet fontWeight="600">{WORDS.playFromHere}</Quiet>
        <Segments
          label={WORDS.playFromHereBegins}
          value={String(leadIn)}
          choices={LEADS}
          onChoose={(bars) => setRehearsal({ leadIn: Number(bars) })}
        />
      </Column>
    </Column>
  );
}
