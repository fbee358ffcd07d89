// How clips come and go; in beats.

import { counted } from '@hovlix/core/counted';
import type { Chase, Look } from '@hovlix/core/light';
import { darkBeats } from '@hovlix/core/show';
import type { Clip, Song } from '@hovlix/core/song';
import type { Id } from '@hovlix/core/units';
import { useHovlix } from '../../host/hovlix';
import { Column, Quiet, Row, Words } from '../../ui/pieces';
import { Stepper } from '../../ui/Stepper';
import { alike, type SomeClips } from './clip-edits';
import { WORDS } from './words';

const FADES = [0, 0.25, 0.5, 1, 2, 4, 8, 16];

/** How the chosen clips come and go; in beats. */
export function ClipFades({
  song,
  lane,
  clips,
  looks,
}: {
  readonly song: Song;
  readonly lane: Id<'Lane'>;
  readonly clips: SomeClips;
  readonly looks: readonly (Look | Chase)[];
}) {
  const app = useHovlix();
  const [clip] = clips;
  const lookOf = (one: Clip) => looks.find(({ id }) => id === one.look);
  const look = lookOf(clip);
  const single = clips.length === 1;
  const stops = single && look && 'steps' in look ? stopsWords(song, clip, look) : undefined;
  const change = (set: { readonly fadeIn?: number; readonly fadeOut?: number }) =>
    app.document.make(
      single
        ? { type: 'fade-clip', song: song.id, lane, clip: clip.id, ...set }
        : { type: 'change-clips', song: song.id, lane, clips: clips.map(({ id }) => id), ...set },
    );
  const fades = (which: 'fadeIn' | 'fadeOut') => clips.map((one) => one[which] ?? lookOf(one)?.[which] ?? 0);
  return (
    <Column paddingHorizontal={16} gap={4}>
      {stops && (
        <Words color="$warn" fontSize={13} lineHeight={18}>
          {stops}
        </Words>
      )}
      {single && <Quiet numberOfLines={1}>{WORDS.comesGoes(look?.name ?? 'Dark')}</Quiet>}
      <Row gap={12} flexWrap="wrap">
        <Fade name={WORDS.fadeIn} values={fades('fadeIn')} onChange={(fadeIn) => change({ fadeIn })} />
        <Fade name={WORDS.fadeOut} values={fades('fadeOut')} onChange={(fadeOut) => change({ fadeOut })} />
      </Row>
    </Column>
  );
}

/** A chase that has come to its end leaves the rest of its clip dark: that is said. */
function stopsWords(song: Song, clip: Clip, chase: Chase): string | undefined {
  const left = darkBeats(song, clip, chase);
  if (!(left > 1e-3)) return undefined;
  const runs = chase.loops === 1 ? 'one run' : WORDS.runs(chase.loops);
  return WORDS.stopsAfterLast(chase.name, runs, counted(left, 'beat'), left === 1 ? 'is' : 'are');
}

type FadeProps = {
  readonly name: string;
  readonly values: readonly number[];
  readonly onChange: (value: number) => void;
};

function Fade({ name, values, onChange }: FadeProps) {
  const value = values[0]!;
  const below = FADES.findLast((step) => step < value - 1e-9);
  const above = FADES.find((step) => step > value + 1e-9);
  return (
    <Stepper
      name={name}
      value={alike(values) ? `${value} ${value === 1 ? 'beat' : 'beats'}` : 'mixed'}
      less={WORDS.shorter(name)}
      more={WORDS.longer(name)}
      onLess={below === undefined ? undefined : () => onChange(below)}
      onMore={above === undefined ? undefined : () => onChange(above)}
    />
  );
}
