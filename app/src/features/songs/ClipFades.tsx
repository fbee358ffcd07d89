// How a clip comes and goes; in beats.

import { counted } from '@hovlix/core/counted';
import type { Chase, Look } from '@hovlix/core/light';
import { darkBeats } from '@hovlix/core/show';
import type { Clip, Song } from '@hovlix/core/song';
import type { Id } from '@hovlix/core/units';
import { useHovlix } from '../../host/hovlix';
import { Column, Quiet, Row, Words } from '../../ui/pieces';
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
  const stops = look && 'steps' in look ? stopsWords(song, clip, look) : undefined;
  const change = (which: 'fadeIn' | 'fadeOut', value: number) =>
    app.document.make({ type: 'fade-clip', song: song.id, lane, clip: clip.id, [which]: value });
  return (
    <Column paddingHorizontal={16} gap={4}>
      {stops && (
        <Words color="$warn" fontSize={13} lineHeight={18}>
          {stops}
        </Words>
      )}
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

/** A chase that has come to its end leaves the rest of its clip dark: that is said. */
function stopsWords(song: Song, clip: Clip, chase: Chase): string | undefined {
  const left = darkBeats(song, clip, chase);
  if (!(left > 1e-3)) return undefined;
  const runs = chase.loops === 1 ? 'one run' : `${chase.loops} runs`;
  return `${chase.name} stops after ${runs}: the last ${counted(left, 'beat')} ${left === 1 ? 'is' : 'are'} dark. With 0 runs it loops.`;
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
