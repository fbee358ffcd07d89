// Pads to play a kit with: struck high up they are loud, near the lower edge soft.

import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { hexFromChromaticity } from '@hovlix/core/colour';
import type { Hit, Kit } from '@hovlix/core/light';
import type { Part } from '@hovlix/core/rig';
import { useHovlix } from '../../../host/hovlix';
import { strike } from '../../../host/strikes';
import { usePalette } from '../../../ui/palette';
import { Quiet } from '../../../ui/pieces';
import { noteName } from './model';

type Props = {
  readonly kit: Kit;
  readonly part: Part['id'] | undefined;
  readonly small?: boolean;
};

/** As hard as a key of the keyboard strikes. */
const KEY_VELOCITY = 0.9;
const SOFTEST = 0.15;

export function Pads({ kit, part, small = false }: Props) {
  if (part === undefined) return <Quiet>Nobody can play it yet: this show has no part. Parts are made in Rig.</Quiet>;
  return (
    <div
      role="group"
      aria-label={`Pads of ${kit.name}`}
      style={{ display: 'grid', gridTemplateColumns: `repeat(auto-fill, minmax(${small ? 88 : 104}px, 1fr))`, gap: 8 }}
    >
      {kit.hits.map((hit) => (
        <Pad key={hit.id} kit={kit} hit={hit} part={part} height={small ? 64 : 104} />
      ))}
    </div>
  );
}

type PadProps = {
  readonly kit: Kit;
  readonly hit: Hit;
  readonly part: Part['id'];
  readonly height: number;
};

function Pad({ kit, hit, part, height }: PadProps) {
  const app = useHovlix();
  const palette = usePalette();
  const glow = useRef<HTMLDivElement>(null);
  const down = useRef(false);
  const colour = hit.colour ? hexFromChromaticity(hit.colour) : '#ffffff';
  const note = Math.min(hit.low, hit.high);
  const begin = (velocity: number) => {
    down.current = true;
    strike(app, { kit, part, note }, velocity);
    glow.current?.animate([{ opacity: 0.25 + 0.75 * velocity }, { opacity: 0.25 }], {
      duration: 450,
      easing: 'ease-out',
    });
  };
  const end = () => {
    if (!down.current) return;
    down.current = false;
    strike(app, { kit, part, note }, 0);
  };
  const press = (event: PointerEvent<HTMLButtonElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    const box = event.currentTarget.getBoundingClientRect();
    const share = 1 - (event.clientY - box.top) / box.height;
    // The upper half is as hard as it gets: in the dark one hits somewhere.
    begin(Math.min(1, Math.max(SOFTEST, share * 2)));
  };
  const key = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    event.stopPropagation();
    if (event.type === 'keyup') end();
    else if (!event.repeat) begin(KEY_VELOCITY);
  };
  return (
    <button
      aria-label={`Strike ${hit.name}`}
      onPointerDown={press}
      onPointerUp={end}
      onPointerCancel={end}
      onKeyDown={key}
      onKeyUp={key}
      style={{ position: 'relative', height, border: 0, borderRadius: 18, overflow: 'hidden', background: palette.well, color: palette.text, font: '600 15px/20px Figtree', textAlign: 'left', padding: 12, cursor: 'pointer', touchAction: 'none', userSelect: 'none' }}
    >
      <div
        ref={glow}
        aria-hidden
        style={{ position: 'absolute', inset: 0, opacity: 0.25, background: `radial-gradient(110% 130% at 50% 120%, ${colour}, transparent 70%)` }}
      />
      <span style={{ position: 'relative', display: 'flex', flexDirection: 'column', height: '100%', justifyContent: 'space-between' }}>
        <span>{hit.name}</span>
        {height > 80 && <span style={{ font: '500 12px/16px Figtree', color: palette.quiet }}>{noteName(note)}</span>}
      </span>
    </button>
  ); // prettier-ignore
}
