// The pads of a hit lane, to the left of their rows: struck, they sound and are chosen.

import { useRef, type PointerEvent } from 'react';
import { hexFromChromaticity } from '@hovlix/core/colour';
import type { Kit } from '@hovlix/core/light';
import type { HitLane } from '@hovlix/core/song';
import { whenOf } from '../../../host/conduct/local-clock';
import { useHovlix } from '../../../host/hovlix';
import { strike } from '../../../host/midi/strikes';
import type { Stamped } from '../../../ui/at-once';
import { usePalette } from '../../../ui/palette';
import { PAD_HEIGHT, type Pad } from './roll';
import { WORDS } from './words';

type Props = {
  readonly pads: readonly Pad[];
  readonly lane: HitLane;
  readonly kit: Kit | undefined;
  readonly width: number;
  /** The pad that patterns are made for. */
  readonly chosen: number | undefined;
  readonly onChoose: (note: number) => void;
};

/** How hard a pad strikes here. */
const VELOCITY = 0.9;

export function PadColumn({ pads, lane, kit, width, chosen, onChoose }: Props) {
  const app = useHovlix();
  const palette = usePalette();
  /** The note that each finger holds. */
  const down = useRef(new Map<number, number>());
  const play = (note: number, velocity: number, event: Stamped) =>
    kit && strike(app, { kit, role: lane.role, note }, velocity, whenOf(event));
  const lift = (event: PointerEvent) => {
    const note = down.current.get(event.pointerId);
    down.current.delete(event.pointerId);
    if (note !== undefined) play(note, 0, event);
  };
  return (
    <div role="group" aria-label={WORDS.pads} style={{ width, flexShrink: 0 }}>
      {pads.map(({ note, name, hit }) => (
        <button
          key={note}
          type="button"
          aria-label={WORDS.strike(name)}
          aria-pressed={note === chosen}
          onPointerDown={(event) => {
            onChoose(note);
            down.current.set(event.pointerId, note);
            play(note, VELOCITY, event);
          }}
          onPointerUp={lift}
          onPointerLeave={lift}
          onPointerCancel={lift}
          style={{
            display: 'flex',
            alignItems: 'center',
            gap: 6,
            width: '100%',
            height: PAD_HEIGHT,
            padding: '0 4px 0 8px',
            border: 0,
            borderBottom: `1px solid ${palette.line}`,
            borderRight: `1px solid ${palette.line}`,
            background: note === chosen ? palette.well : palette.raised,
            color: hit ? palette.text : palette.quiet,
            font: '600 13px/16px Figtree',
            textAlign: 'left',
            cursor: 'pointer',
            touchAction: 'pan-y',
          }}
        >
          <span
            aria-hidden
            style={{
              width: 8,
              height: 24,
              borderRadius: 4,
              flexShrink: 0,
              background: hit?.colour ? hexFromChromaticity(hit.colour) : palette.faint,
            }}
          />
          <span style={{ overflow: 'hidden', textOverflow: 'ellipsis' }}>{name}</span>
        </button>
      ))}
    </div>
  );
}
