// Looks in Close-up: drag a clip to move it, its ends to make it longer or shorter, a box to choose many; all on the grid.

import { useState } from 'react';
import { counted } from '@hovlix/core/counted';
import { beatsOfBars, type Clip, type LookLane } from '@hovlix/core/song';
import { useHovlix, usePlays } from '../../../host/hovlix';
import { usePalette } from '../../../ui/palette';
import { Column, Quiet } from '../../../ui/pieces';
import { someClips } from '../clip-edits';
import { tickColour } from '../model';
import { Pin } from '../Pin';
import { ChosenClips } from './ChosenClips';
import { ClipBox } from './ClipBox';
import type { Editing } from './editing';
import { gridLength, xOf } from './grid';
import { GridLines } from './Paper';
import { useChosenKeys } from './use-chosen-keys';
import { hasEnds, HEIGHT, useClipGesture, type Span } from './use-clip-gesture';
import { WORDS } from './words';

export function ClipEditor({ song, lane, grid, window, may }: Editing<LookLane>) {
  const { document } = useHovlix();
  const palette = usePalette();
  const looks = usePlays();
  const [wanted, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [several, setSeveral] = useState(false);
  const { from, to } = beatsOfBars(song, window.first, window.first + window.count - 1);
  const isIn = (span: Span) => span.to > from && span.from < to;
  const lookOf = (clip: Clip) => looks.find(({ id }) => id === clip.look);
  const nameOf = (clip: Clip) => (clip.look ? (lookOf(clip)?.name ?? 'Gone') : 'Dark');
  const clips = someClips(lane.clips.filter(({ id }) => wanted.has(id)));
  const inView = lane.clips.filter(isIn);
  const on = { song: song.id, lane: lane.id };
  const ids = clips?.map(({ id }) => id) ?? [];
  /** Of what was chosen, what is still there. */
  const chosen: ReadonlySet<string> = new Set(ids);
  const choose = (more: readonly Clip[]) => setChosen(new Set([...chosen, ...more.map(({ id }) => id)]));
  const place = (one: Clip, where: Span) => {
    if (where.to > where.from) document.make({ type: 'move-clip', ...on, clip: one.id, ...where });
  };
  const shift = (by: number) => {
    if (by !== 0 && clips) document.make({ type: 'move-clips', ...on, clips: ids, by });
  };
  const none = () => {
    setChosen(new Set());
    setSeveral(false);
  };
  const remove = () => {
    document.make({ type: 'remove-clips', ...on, clips: ids });
    none();
  };
  useChosenKeys({
    wanted: may,
    any: clips !== undefined,
    remove,
    all: () => setChosen(new Set(inView.map(({ id }) => id))),
    none,
    nudge: (way) => shift(way * gridLength(song, grid, window.first)),
  });
  const { box, shownAt, handlers } = useClipGesture({
    ...{ song, lane, grid, window, may, inView, chosen, several },
    onChosen: setChosen,
    onNone: none,
    onPlace: place,
    onShift: shift,
  });

  return (
    <Column flex={1} minHeight={0}>
      <div
        role="application"
        aria-label={WORDS.looksOf(lane.name)}
        {...handlers}
        style={{
          position: 'relative',
          height: HEIGHT,
          flexShrink: 0,
          overflow: 'hidden',
          touchAction: 'none',
          userSelect: 'none',
          cursor: 'grab',
          background: palette.ground,
        }}
      >
        <GridLines window={window} grid={grid} />
        {lane.clips.map((one) => {
          const at = shownAt(one);
          if (!isIn(at)) return null;
          const [left, right] = [xOf(window, at.from), xOf(window, at.to)];
          const held = chosen.has(one.id);
          const handles = held && chosen.size === 1 && hasEnds(right - left);
          const colours = tickColour(lookOf(one));
          return <ClipBox key={one.id} name={nameOf(one)} chosen={held} {...{ colours, left, right, handles }} />;
        })}
        {box && <Box from={box[0]} to={box[1]} />}
        <Pin first={window.first} count={window.count} barWidth={window.width / window.count} />
      </div>
      {clips && may ? (
        <ChosenClips
          song={song}
          lane={lane.id}
          clips={clips}
          name={clips.length === 1 ? nameOf(clips[0]) : counted(clips.length, 'clip')}
          looks={looks}
          several={several}
          onSeveral={setSeveral}
          onAll={inView.every(({ id }) => chosen.has(id)) ? undefined : () => choose(inView)}
          onPlace={(where) => place(clips[0], where)}
          onRemove={remove}
          onDone={none}
        />
      ) : (
        <Quiet padding={12}>{WORDS.dragLookMove}</Quiet>
      )}
    </Column>
  );
}

function Box({ from, to }: Span) {
  const { doing } = usePalette();
  return (
    <div
      aria-hidden
      style={{
        position: 'absolute',
        left: from,
        width: to - from,
        top: 2,
        bottom: 2,
        border: `1.5px solid ${doing}`,
        background: `${doing}22`,
        pointerEvents: 'none',
        zIndex: 3,
      }}
    />
  );
}
