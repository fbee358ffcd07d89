// One strip a universe: who sits where, what is free, where it ends. Lamps are dragged along it to another address.

import { useMemo, useRef, useState, type PointerEvent } from 'react';
import { clashes, footprint, nextFree, overlaps, type Patched, type Profile, type Rig } from '@hovlix/core/rig';
import { address } from '@hovlix/core/units';
import { useDrag } from '../../../ui/drag';
import { usePalette, useTints } from '../../../ui/palette';
import { Column, Figures, Row, Words } from '../../../ui/pieces';
import { WORDS } from './words';

type Props = {
  readonly rig: Rig;
  readonly profiles: readonly Profile[];
  readonly patched: readonly Patched[];
  readonly tintOf: (fixture: string) => number | undefined;
  readonly chosen: ReadonlySet<string>;
  readonly onChoose: (fixture: string) => void;
  readonly onMove: (lamp: Patched, address: number) => void;
};

export function Ruler(props: Props) {
  const { patched } = props;
  const universes = useMemo(
    () => [...new Set(patched.map(({ fixture }) => fixture.universe as number))].sort((a, b) => a - b),
    [patched],
  );
  const overlapping = useMemo(
    () => new Set(overlaps(patched).flatMap(([a, b]) => [a.id as string, b.id as string])),
    [patched],
  );
  return (
    <Column paddingHorizontal={16} paddingBottom={12} gap={12}>
      {universes.map((universe) => (
        <Strip key={universe} {...props} universe={universe} overlapping={overlapping} />
      ))}
    </Column>
  );
}

type StripProps = Props & { readonly universe: number; readonly overlapping: ReadonlySet<string> };
/** Half the breadth of a finger, in pixels. */
const FINGER = 22;

type Drag = {
  readonly id: string;
  readonly x: number;
  readonly start: number;
  readonly at: number;
  readonly moved: boolean;
};

function Strip({ rig, profiles, patched, tintOf, chosen, onChoose, onMove, universe, overlapping }: StripProps) {
  const palette = usePalette();
  const tints = useTints();
  const strip = useRef<HTMLDivElement>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  const lamps = patched.filter(({ fixture }) => fixture.universe === universe);
  const used = Math.max(...lamps.map(({ fixture, mode }) => fixture.address + footprint(mode)));
  // While something is dragged the whole universe is there to drag it to.
  const end = drag?.moved ? 512 : Math.min(512, Math.ceil(used / 64) * 64);
  const past = lamps.filter(({ fixture, mode }) => fixture.address + footprint(mode) > 513);

  /** The lamp under a finger, or the nearest one within its breadth: three channels are narrower than any finger. */
  const lampAt = (x: number): Patched | undefined => {
    const { left, width } = strip.current!.getBoundingClientRect();
    const away = ({ fixture, mode }: Patched) => {
      const from = left + ((fixture.address - 1) / end) * width;
      return Math.max(from - x, x - from - (footprint(mode) / end) * width, 0);
    };
    const [nearest] = [...lamps].sort((a, b) => away(a) - away(b));
    return nearest && away(nearest) <= FINGER ? nearest : undefined;
  };
  const begin = (event: PointerEvent<HTMLDivElement>) => {
    const lamp = lampAt(event.clientX);
    if (!lamp) return false;
    const { id, address: start } = lamp.fixture;
    setDrag({ id, x: event.clientX, start, at: start, moved: false });
  };
  const move = (event: PointerEvent) => {
    const lamp = drag && lamps.find(({ fixture }) => fixture.id === drag.id);
    if (!drag || !lamp) return;
    const away = event.clientX - drag.x;
    if (!drag.moved && Math.abs(away) < 6) return;
    const width = strip.current!.clientWidth;
    const box = strip.current!.getBoundingClientRect();
    const wish = drag.moved ? Math.round(((event.clientX - box.left) / width) * 512) : drag.start;
    setDrag({ ...drag, moved: true, at: nearestFree(rig, profiles, lamp, wish) ?? drag.start });
  };
  const drop = () => {
    const lamp = drag && lamps.find(({ fixture }) => fixture.id === drag.id);
    if (lamp && drag.moved && drag.at !== drag.start) onMove(lamp, drag.at);
    else if (drag && !drag.moved) onChoose(drag.id);
    setDrag(null);
  };
  const hands = useDrag<HTMLDivElement>({ down: begin, move, up: drop, cancel: () => setDrag(null) });
  const dragged = drag?.moved ? lamps.find(({ fixture }) => fixture.id === drag.id) : undefined;
  return (
    <Column gap={6}>
      <Row justifyContent="space-between">
        <Words color="$quiet">{WORDS.universeAddresses1(universe, end)}</Words>
        <Words color="$quiet">
          {dragged && drag ? (
            <>
              {dragged.fixture.name}
              {WORDS.to} <Figures color="$text">{`${drag.at}–${drag.at + footprint(dragged.mode) - 1}`}</Figures>
            </>
          ) : (
            <>
              {WORDS.nextFree}
              <Figures color="$text">{nextFree(patched, universe, 1) ?? 'none'}</Figures>
            </>
          )}
        </Words>
      </Row>
      {/* A picture for the eye and the finger: the list below has each lamp as a button, and its address in a field. */}
      <div
        ref={strip}
        role="img"
        aria-label={WORDS.addressesUseUniverse(universe)}
        {...hands}
        style={{
          position: 'relative',
          height: 44,
          background: palette.sunken,
          borderRadius: 8,
          overflow: 'hidden',
          touchAction: 'none',
          cursor: 'grab',
        }}
      >
        {lamps.map((lamp) => {
          const { fixture, mode } = lamp;
          const tint = tintOf(fixture.id);
          const here = drag?.id === fixture.id && drag.moved ? drag.at : fixture.address;
          const wrong = overlapping.has(fixture.id);
          return (
            <div
              key={fixture.id}
              data-testid={`on the ruler: ${fixture.name}`}
              style={{
                position: 'absolute',
                left: `${((here - 1) / end) * 100}%`,
                width: `calc(${(footprint(mode) / end) * 100}% - 1px)`,
                top: 0,
                bottom: 0,
                display: 'flex',
                alignItems: 'center',
                justifyContent: 'center',
                overflow: 'hidden',
                borderRadius: 4,
                pointerEvents: 'none',
                zIndex: drag?.id === fixture.id ? 1 : 0,
                background: wrong
                  ? `repeating-linear-gradient(45deg, ${palette.fault} 0 6px, ${palette.ground} 6px 10px)`
                  : chosen.has(fixture.id)
                    ? palette.doing
                    : tint === undefined
                      ? palette.faint
                      : tints[tint],
                color: palette.ground,
                font: '600 12px "Spline Sans Mono"',
              }}
            >
              {footprint(mode) / end > 0.04 ? (fixture.label ?? fixture.number) : ''}
            </div>
          );
        })}
      </div>
      {past.map(({ fixture }) => (
        <Words key={fixture.id} color="$fault">
          {WORDS.endsPast512(fixture.name)}
        </Words>
      ))}
    </Column>
  );
}

/** The free place for a lamp that is nearest to a wished address: it can never be dropped onto another one. */
function nearestFree(rig: Rig, profiles: readonly Profile[], lamp: Patched, wish: number): number | undefined {
  const others = { ...rig, fixtures: rig.fixtures.filter(({ id }) => id !== lamp.fixture.id) };
  const wanted = { profile: lamp.profile, mode: lamp.mode, count: 1, universe: lamp.fixture.universe };
  const most = 513 - footprint(lamp.mode);
  const fits = (at: number) => at >= 1 && at <= most && clashes(others, profiles, wanted, address(at)).length === 0;
  for (let away = 0; away < 512; away++) {
    if (fits(wish - away)) return wish - away;
    if (fits(wish + away)) return wish + away;
  }
  return undefined;
}
