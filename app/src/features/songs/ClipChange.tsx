// How a clip plays its look: faster or slower, dimmer, in other colours.

import { CLIP_SPEEDS, type Clip, type Song } from '@hovlix/core/song';
import type { Id } from '@hovlix/core/units';
import { useHovlix } from '../../host/hovlix';
import { Row } from '../../ui/pieces';
import { Stepper } from '../../ui/Stepper';

const SPEEDS = [0.125, 0.25, 0.5, 0.75, 1, 1.5, 2, 3, 4, 8].filter((one) => one >= CLIP_SPEEDS.least && one <= CLIP_SPEEDS.most); // prettier-ignore
const LEVELS = [0.05, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1];
const TURN_STEP = 30;

type Props = { readonly song: Song; readonly lane: Id<'Lane'>; readonly clip: Clip };
type Change = { readonly speed?: number; readonly level?: number; readonly turn?: number };

export function ClipChange({ song, lane, clip }: Props) {
  const { document } = useHovlix();
  const { speed = 1, level = 1, turn = 0 } = clip;
  const change = (more: Change) => document.make({ type: 'change-clip', song: song.id, lane, clip: clip.id, ...more });
  const step = (values: readonly number[], value: number, way: 1 | -1, set: (to: number) => Change) => {
    const to = way < 0 ? values.findLast((one) => one < value - 1e-9) : values.find((one) => one > value + 1e-9);
    return to === undefined ? undefined : () => change(set(to));
  };
  const turned = (by: number) => ((((turn + by + 180) % 360) + 360) % 360) - 180;
  return (
    <Row gap={12} flexWrap="wrap" paddingHorizontal={16} role="group" aria-label="How the clip plays its look">
      <Stepper
        name="Speed"
        value={`× ${Math.round(speed * 1000) / 1000}`}
        less="Slower"
        more="Faster"
        onLess={step(SPEEDS, speed, -1, (to) => ({ speed: to }))}
        onMore={step(SPEEDS, speed, 1, (to) => ({ speed: to }))}
      />
      <Stepper
        name="Level"
        value={`${Math.round(level * 100)} %`}
        less="Dimmer"
        more="Brighter"
        onLess={step(LEVELS, level, -1, (to) => ({ level: to }))}
        onMore={step(LEVELS, level, 1, (to) => ({ level: to }))}
      />
      <Stepper
        name="Colours turned"
        value={`${turn > 0 ? '+' : ''}${String(turn).replace('-', '−')}°`}
        less="Turn the colours back"
        more="Turn the colours on"
        onLess={() => change({ turn: turned(-TURN_STEP) })}
        onMore={() => change({ turn: turned(TURN_STEP) })}
      />
    </Row>
  );
}
