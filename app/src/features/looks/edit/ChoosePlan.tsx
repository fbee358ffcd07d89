// Lamps chosen where they hang: a tap takes or leaves one, a line drawn around several takes those.

import { useMemo, useRef, useState, type PointerEvent } from 'react';
import { isInside, type Fixture } from '@hovlix/core/rig';
import { rigInUse, type Show } from '@hovlix/core/show';
import { useDrag } from '../../../ui/drag';
import { usePalette, useTints } from '../../../ui/palette';
import { Column, Quiet } from '../../../ui/pieces';
import { nearest, type Spot } from './choose';
import { pictureOf, reachOf, RoomFromAbove, spotOf } from './RoomFromAbove';
import { WORDS } from './words';

type Id = Fixture['id'];
type Props = {
  readonly show: Show;
  readonly chosen: ReadonlySet<string>;
  /** The lamps that are meant from now on; with `add`, beside those that are. */
  readonly onLine: (lamps: readonly Id[], add: boolean) => void;
  readonly onTap: (lamp: Id) => void;
};

/** A finger that moved less than this many pixels has tapped. */
const STILL = 7;
/** How far beside a lamp a tap still means it, in pixels. */
const REACH = 30;

export function ChoosePlan({ show, chosen, onLine, onTap }: Props) {
  const palette = usePalette();
  const tints = useTints();
  const area = useRef<SVGSVGElement>(null);
  const [line, setLine] = useState<readonly Spot[]>([]);
  const rig = rigInUse(show);
  const viewBox = useMemo(() => pictureOf(rig).viewBox, [rig]);
  const places = useMemo(() => rig.fixtures.map(({ id, mount }) => ({ id, x: mount.x, y: -mount.y })), [rig.fixtures]);
  const tintOf = (id: string) => {
    const role = rig.casting.find(({ fixtures }) => fixtures.some((one) => one === id))?.role;
    const tint = show.roles.find((one) => one.id === role)?.tint;
    return tint === undefined ? palette.line : tints[tint]!;
  };
  const end = (event: PointerEvent) => {
    if (line.length === 0) return;
    const far = Math.max(...line.map(([x, y]) => Math.hypot(x - line[0]![0], y - line[0]![1])));
    if (far < reachOf(area.current!, STILL)) {
      const lamp = nearest(places, line[0]!, reachOf(area.current!, REACH));
      if (lamp) onTap(lamp.id);
    } else
      onLine(
        places.filter(({ x, y }) => isInside(line, x, y)).map(({ id }) => id),
        event.shiftKey,
      );
    setLine([]);
  };
  const hands = useDrag<SVGSVGElement>({
    down: (event) => setLine([spotOf(event.currentTarget, event)]),
    move: ({ currentTarget, clientX, clientY }) => {
      const spot = spotOf(currentTarget, { clientX, clientY });
      setLine((drawn) => [...drawn, spot]);
    },
    up: end,
    cancel: () => setLine([]),
  });
  const size = Math.min(0.62, Math.max(0.34, 3.4 / Math.sqrt(places.length || 1)));
  return (
    <Column paddingHorizontal={12} gap={4}>
      <RoomFromAbove area={area} viewBox={viewBox} label={WORDS.lampsFromAbove} rig={rig} {...hands}>
        {rig.fixtures.map(({ id, number, name, mount }) => {
          const on = chosen.has(id);
          return (
            <g key={id} aria-label={`${name}${on ? ', chosen' : ''}`}>
              <rect
                x={mount.x - size / 2}
                y={-mount.y - size / 2}
                width={size}
                height={size}
                rx={size / 4}
                fill={on ? palette.doing : palette.ground}
                stroke={tintOf(id)}
                strokeWidth={0.06}
              />
              <text
                x={mount.x}
                y={-mount.y}
                textAnchor="middle"
                dominantBaseline="central"
                fontSize={size * 0.55}
                fontFamily="Spline Sans Mono"
                fontWeight={600}
                fill={on ? palette.onDoing : palette.text}
                pointerEvents="none"
              >
                {number}
              </text>
            </g>
          );
        })}
        {line.length > 1 && (
          <path
            d={`M${line.map(([x, y]) => `${x} ${y}`).join('L')}Z`}
            fill={palette.doing}
            fillOpacity={0.12}
            stroke={palette.doing}
            strokeWidth={0.06}
            strokeDasharray="0.16 0.12"
          />
        )}
      </RoomFromAbove>
      <Quiet>{WORDS.drawLineAround}</Quiet>
    </Column>
  );
}
