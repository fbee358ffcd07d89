// 512 cells with a number and a bar, moved eleven times a second without React.

import { useEffect, useRef } from 'react';
import { patchedFixtures } from '@hovlix/core/rig';
import { rigInUse, type Show } from '@hovlix/core/show';
import { useHovlix, useLive, useShow } from '../../host/hovlix';
import { usePalette, useTints } from '../../ui/palette';
import { WORDS } from './words';

export type ChannelRef = { readonly universe: number; readonly address: number; readonly was?: number };

type Props = {
  readonly universe: number;
  readonly chosen: readonly ChannelRef[];
  /** @param level 0…255, as it leaves now. */
  readonly onToggle: (address: number, level: number) => void;
};

export function Channels({ universe, chosen, onToggle }: Props) {
  const app = useHovlix();
  const palette = usePalette();
  const tints = useTints();
  const show = useShow((one) => one);
  const held = useLive((live) => live.held);
  const grid = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const shown = new Int16Array(512).fill(-1);
    return app.conducting.watch(universe, ({ levels }) => {
      const cells = grid.current?.children;
      if (!cells) return;
      for (let i = 0; i < 512; i++) {
        const level = levels[i]!;
        if (shown[i] === level) continue;
        shown[i] = level;
        const [bar, , figure] = cells[i]!.children as unknown as HTMLElement[];
        bar!.style.transform = `scaleY(${level / 255})`;
        figure!.textContent = String(level);
        cells[i]!.setAttribute('data-level', String(level));
      }
    });
  }, [app, universe]);
  const lamps = show ? lampsAt(show, universe) : new Map<number, { readonly name: string; readonly tint: number }>();
  const isChosen = new Set(chosen.filter((one) => one.universe === universe).map((one) => one.address));
  const isHeld = new Set(held.filter((one) => one.universe === universe).map((one) => one.address));
  return (
    <div
      ref={grid}
      role="group"
      aria-label={WORDS.channelsOfUniverse(universe)}
      style={{
        display: 'grid',
        gridTemplateColumns: 'repeat(auto-fill, minmax(44px, 1fr))',
        gap: 3,
        padding: '0 12px',
      }}
    >
      {Array.from({ length: 512 }, (_, i) => {
        const address = i + 1;
        const lamp = lamps.get(address);
        const on = isChosen.has(address);
        return (
          <button
            key={address}
            type="button"
            aria-label={`Channel ${address}${lamp ? `, ${lamp.name}` : ''}${isHeld.has(address) ? ', held' : ''}`}
            aria-pressed={on}
            onClick={(event) => onToggle(address, Number(event.currentTarget.dataset['level'] ?? 0))}
            style={{
              position: 'relative',
              height: 48,
              padding: 0,
              overflow: 'hidden',
              border: 0,
              borderRadius: 6,
              background: palette.sunken,
              boxShadow: `inset 0 0 0 ${on ? 2 : 1}px ${on ? palette.doing : isHeld.has(address) ? palette.warn : palette.line}`,
              cursor: 'pointer',
            }}
          >
            <span
              style={{
                position: 'absolute',
                inset: 1,
                borderRadius: 5,
                background: palette.live,
                opacity: 0.38,
                transformOrigin: 'bottom',
                transform: 'scaleY(0)',
              }}
            />
            <span
              style={{
                position: 'absolute',
                left: 5,
                right: 5,
                top: 3,
                display: 'flex',
                font: '400 12px/14px "Spline Sans Mono"',
                color: palette.text,
                borderTop: lamp ? `2px solid ${tints[lamp.tint]}` : '2px solid transparent',
              }}
            >
              {address}
            </span>
            <span
              style={{
                position: 'absolute',
                left: 0,
                right: 0,
                bottom: 4,
                textAlign: 'center',
                font: '600 15px/18px "Spline Sans Mono"',
                color: palette.text,
              }}
            >
              0
            </span>
          </button>
        );
      })}
    </div>
  );
}

/** Which lamp sits on each channel, and the tint of its role. */
function lampsAt(show: Show, universe: number): Map<number, { readonly name: string; readonly tint: number }> {
  const rig = rigInUse(show);
  const at = new Map<number, { name: string; tint: number }>();
  for (const { fixture, mode } of patchedFixtures(rig, show.profiles)) {
    if (fixture.universe !== universe) continue;
    const cast = rig.casting.find((one) => one.fixtures.includes(fixture.id));
    const tint = show.roles.find((role) => role.id === cast?.role)?.tint ?? 0;
    const length = mode.channels.reduce((most, channel) => Math.max(most, ...channel.at), 0);
    for (let i = 0; i < length; i++) at.set(fixture.address + i, { name: fixture.name, tint });
  }
  return at;
}
