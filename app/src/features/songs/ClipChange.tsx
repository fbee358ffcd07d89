// How clips play their looks: faster or slower, dimmer, in other colours.

import { CLIP_SPEEDS, type Song } from '@hovlix/core/song';
import type { Id } from '@hovlix/core/units';
import { useHovlix } from '../../host/hovlix';
import { Row } from '../../ui/pieces';
import { Stepper } from '../../ui/Stepper';
import { alike, type SomeClips } from './clip-edits';
import { WORDS } from './words';

const SPEEDS = [0.125, 0.25, 0.5, 0.75, 1, 1.5, 2, 3, 4, 8].filter(
  (one) => one >= CLIP_SPEEDS.least && one <= CLIP_SPEEDS.most,
);
const LEVELS = [0.05, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1];
const TURN_STEP = 30;

type Props = { readonly song: Song; readonly lane: Id<'Lane'>; readonly clips: SomeClips };
type Change = { readonly speed?: number; readonly level?: number };

export function ClipChange({ song, lane, clips }: Props) {
  const { document } = useHovlix();
  const [{ speed = 1, level = 1, turn = 0 }] = clips;
  const on = { type: 'change-clips', song: song.id, lane, clips: clips.map(({ id }) => id) } as const;
  const change = (more: Change) =>
    document.make(
      clips.length === 1
        ? { type: 'change-clip', song: song.id, lane, clip: clips[0].id, ...more }
        : { ...on, ...more },
    );
  const turned = (turnBy: number) => document.make({ ...on, turnBy });
  const step = (values: readonly number[], value: number, way: 1 | -1, set: (to: number) => Change) => {
    const to = way < 0 ? values.findLast((one) => one < value - 1e-9) : values.find((one) => one > value + 1e-9);
    return to === undefined ? undefined : () => change(set(to));
  };
  const shown = (values: readonly number[], words: string) => (alike(values) ? words : 'mixed');
  return (
    <Row gap={12} flexWrap="wrap" paddingHorizontal={16} role="group" aria-label={WORDS.howClipPlays}>
      <Stepper
        name={WORDS.speed}
        value={shown(
          clips.map((one) => one.speed ?? 1),
          `× ${Math.round(speed * 1000) / 1000}`,
        )}
        less={WORDS.slower}
        more={WORDS.faster}
        onLess={step(SPEEDS, speed, -1, (to) => ({ speed: to }))}
        onMore={step(SPEEDS, speed, 1, (to) => ({ speed: to }))}
      />
      <Stepper
        name={WORDS.level}
        value={shown(
          clips.map((one) => one.level ?? 1),
          `${Math.round(level * 100)} %`,
        )}
        less={WORDS.dimmer}
        more={WORDS.brighter}
        onLess={step(LEVELS, level, -1, (to) => ({ level: to }))}
        onMore={step(LEVELS, level, 1, (to) => ({ level: to }))}
      />
      <Stepper
        name={WORDS.coloursTurned}
        value={shown(
          clips.map((one) => one.turn ?? 0),
          `${turn > 0 ? '+' : ''}${String(turn).replace('-', '−')}°`,
        )}
        less={WORDS.turnColoursBack}
        more={WORDS.turnColours}
        onLess={() => turned(-TURN_STEP)}
        onMore={() => turned(TURN_STEP)}
      />
    </Row>
  );
}
