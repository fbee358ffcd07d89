// How a clip comes and goes; in beats.

import type { Chase, Look } from '@hovlix/core/light';
import type { Clip, Song } from '@hovlix/core/song';
import type { Id } from '@hovlix/core/units';
import { useHovlix } from '../../host/hovlix';
import { Column, Quiet, Row } from '../../ui/pieces';
import { Stepper } from '../../ui/Stepper';

const FADES = [0, 0.25, 0.5, 1, 2, 4, 8, 16];

/** How the clip under the chosen bars comes and goes; in beats. */
export function ClipFades({
  song,
  lane,
  clip,
  looks,
}: {
  readonly song: Song;
  readonly lane: Id<'Lane'>;
  readonly clip: Clip;
  readonly looks: readonly (Look | Chase)[];
}) {
  const app = useHovlix();
  const look = looks.find((one) => one.id === clip.look);
  const change = (which: 'fadeIn' | 'fadeOut', value: number) =>
    app.document.make({ type: 'fade-clip', song: song.id, lane, clip: clip.id, [which]: value });
  return (
    <Column paddingHorizontal={16} gap={4}>
      <Quiet numberOfLines={1}>{look?.name ?? 'Dark'} comes and goes in</Quiet>
      <Row gap={12} flexWrap="wrap">
        <Fade name="Fade in" value={clip.fadeIn ?? look?.fadeIn ?? 0} onChange={(value) => change('fadeIn', value)} />
        <Fade
          name="Fade out"
          value={clip.fadeOut ?? look?.fadeOut ?? 0}
          onChange={(value) => change('fadeOut', value)}
        />
      </Row>
    </Column>
  );
}

type FadeProps = { readonly name: string; readonly value: number; readonly onChange: (value: number) => void };

function Fade({ name, value, onChange }: FadeProps) {
  const below = FADES.findLast((step) => step < value - 1e-9);
  const above = FADES.find((step) => step > value + 1e-9);
  return (
    <Stepper
      name={name}
      value={`${value} ${value === 1 ? 'beat' : 'beats'}`}
      less={`${name} shorter`}
      more={`${name} longer`}
      onLess={below === undefined ? undefined : () => onChange(below)}
      onMore={above === undefined ? undefined : () => onChange(above)}
    />
  );
}
