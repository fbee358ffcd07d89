// Pads to play a kit with: struck high up they are loud, near the lower edge soft.

import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { hexFromChromaticity } from '@hovlix/core/colour';
import { noteName, type Hit, type Kit } from '@hovlix/core/light';
import type { Role } from '@hovlix/core/rig';
import { whenOf } from '../host/conduct/local-clock';
import { useHovlix } from '../host/hovlix';
import { strike } from '../host/midi/strikes';
import type { Stamped } from './at-once';
import { usePalette } from './palette';
import { Quiet } from './pieces';
import { WORDS } from './words';

export type HitPadsProps = {
  readonly kit: Kit;
  readonly role: Role['id'] | undefined;
  readonly small?: boolean;
};

/** As hard as a key of the keyboard strikes. */
const KEY_VELOCITY = 0.9;
const SOFTEST = 0.15;
/** No finger has this number. */
const BY_KEY = -1;
/** How bright a pad's light is while nobody strikes it. */
const RESTING = 0.5;

export function StruckPads({ kit, role, small = false }: HitPadsProps) {
  if (role === undefined) return <Quiet>{WORDS.nobodyPlaysIt}</Quiet>;
  return (
    <div
      role="group"
      aria-label={WORDS.padsOf(kit.name)}
      style={{
        display: 'grid',
        gridTemplateColumns: small ? 'repeat(auto-fit, minmax(88px, 1fr))' : 'repeat(3, minmax(0, 1fr))',
        gap: 8,
      }}
    >
      {kit.hits.map((hit) => (
        <Pad key={hit.id} kit={kit} hit={hit} role={role} height={small ? 64 : 104} />
      ))}
    </div>
  );
}

type PadProps = {
  readonly kit: Kit;
  readonly hit: Hit;
  readonly role: Role['id'];
  readonly height: number;
};

function Pad({ kit, hit, role, height }: PadProps) {
  const app = useHovlix();
  const palette = usePalette();
  const glow = useRef<HTMLDivElement>(null);
  /** The fingers, and the key, that are on it: it rings until the last of them leaves. */
  const down = useRef(new Set<number>());
  const colour = hit.colour ? hexFromChromaticity(hit.colour) : '#ffffff';
  const note = Math.min(hit.low, hit.high);
  const begin = (velocity: number, event: Stamped, finger: number) => {
    down.current.add(finger);
    strike(app, { kit, role, note }, velocity, whenOf(event));
    glow.current?.animate([{ opacity: RESTING + (1 - RESTING) * velocity }, { opacity: RESTING }], {
      duration: 450,
      easing: 'ease-out',
    });
  };
  const end = (event: Stamped, finger: number) => {
    if (!down.current.delete(finger) || down.current.size > 0) return;
    strike(app, { kit, role, note }, 0, whenOf(event));
  };
  const press = (event: PointerEvent<HTMLButtonElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    const box = event.currentTarget.getBoundingClientRect();
    const share = 1 - (event.clientY - box.top) / box.height;
    // The upper half is as hard as it gets: in the dark one hits somewhere.
    begin(Math.min(1, Math.max(SOFTEST, share * 2)), event, event.pointerId);
  };
  const lift = (event: PointerEvent) => end(event, event.pointerId);
  const key = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    event.stopPropagation();
    if (event.type === 'keyup') end(event, BY_KEY);
    else if (!event.repeat) begin(KEY_VELOCITY, event, BY_KEY);
  };
  return (
    <button
      aria-label={WORDS.strike(hit.name)}
      onPointerDown={press}
      onPointerUp={lift}
      onPointerCancel={lift}
      onKeyDown={key}
      onKeyUp={key}
      style={{
        position: 'relative',
        height,
        border: `1px solid ${palette.line}`,
        borderRadius: 18,
        overflow: 'hidden',
        background: '#0c0a10',
        color: '#fff',
        font: '600 15px/20px Figtree',
        textAlign: 'left',
        padding: 12,
        cursor: 'pointer',
        touchAction: 'none',
        userSelect: 'none',
      }}
    >
      <div ref={glow} aria-hidden style={{ position: 'absolute', inset: 0, opacity: RESTING }}>
        <div style={{ position: 'absolute', inset: 0, filter: 'blur(4px)' }}>
          <div
            style={{
              width: '100%',
              height: '100%',
              clipPath: 'polygon(68% 0, 76% 0, 104% 84%, 44% 84%)',
              background: `linear-gradient(${colour}, ${colour}18 84%)`,
            }}
          />
        </div>
        <div
          style={{
            position: 'absolute',
            inset: 0,
            background: `radial-gradient(42% 17% at 73% 84%, ${colour}, transparent)`,
          }}
        />
        <div
          style={{
            position: 'absolute',
            inset: 0,
            background: `radial-gradient(20% 26% at 72% 0%, ${colour}, transparent)`,
          }}
        />
      </div>
      <span
        style={{
          position: 'relative',
          display: 'flex',
          flexDirection: 'column',
          height: '100%',
          justifyContent: 'space-between',
        }}
      >
        <span>{hit.name}</span>
        {height > 80 && <span style={{ font: '500 12px/16px Figtree', color: '#cfc8da' }}>{noteName(note)}</span>}
      </span>
    </button>
  );
}
