// The marks on the plan: shapes of the room, lamps with the way they point, aims.

import { memo } from 'react';
import { beamDirection, mountRotation, type Aim, type Patched, type Shape } from '@hovlix/core/rig';
import type { Palette } from '../../../ui/tokens';
import { WORDS } from './words';

export type Look = {
  /** Metres to pixels. */
  readonly x: (metres: number) => number;
  readonly y: (metres: number) => number;
  readonly scale: number;
  /** Of the picture, in pixels. */
  readonly width: number;
  readonly from: 'above' | 'audience';
  readonly palette: Palette;
};

type ShapeProps = { readonly shape: Shape; readonly look: Look; readonly chosen: boolean };

export function ShapeMark({ shape, look, chosen }: ShapeProps) {
  const { palette, scale } = look;
  const above = look.from === 'above';
  const [cx, cy] = [look.x(shape.x), above ? look.y(shape.y) : look.y(shape.z + shape.height / 2)];
  const width = shape.width * scale;
  const height = Math.max(3, (above ? shape.depth : shape.height) * scale);
  const stroke = chosen ? palette.doing : palette.line;
  const turned = above ? `rotate(${-shape.turn} ${cx} ${cy})` : undefined;
  const box = { x: cx - width / 2, y: cy - height / 2, width, height };
  return (
    <g transform={turned}>
      {shape.kind === 'truss' ? (
        <>
          <rect {...box} fill="none" stroke={stroke} strokeWidth={chosen ? 2.5 : 1.5} rx={2} />
          <path d={bracing(box)} stroke={stroke} strokeWidth={1} fill="none" />
        </>
      ) : shape.kind === 'curtain' ? (
        <path d={folds(box)} stroke={chosen ? palette.doing : palette.faint} strokeWidth={3} fill="none" />
      ) : shape.kind === 'stand' ? (
        <>
          <circle cx={cx} cy={cy} r={Math.max(6, Math.min(width, 26) / 2)} fill={palette.well} stroke={stroke} />
          <path d={`M${cx - 9} ${cy}h18M${cx} ${cy - 9}v18`} stroke={stroke} />
        </>
      ) : (
        <rect
          {...box}
          rx={Math.min(8, height / 3)}
          fill={shape.kind === 'stage' ? palette.raised : shape.kind === 'floor' ? 'none' : palette.well}
          stroke={stroke}
          strokeWidth={chosen ? 2.5 : 1}
          strokeDasharray={shape.kind === 'floor' ? '6 6' : undefined}
        />
      )}
      {shape.kind !== 'stage' && shape.kind !== 'truss' && width > 40 && (
        <text x={cx} y={cy + 4} fill={palette.quiet} fontSize={12} textAnchor="middle" fontFamily="Figtree">
          {shape.name}
        </text>
      )}
    </g>
  );
}

type Box = { readonly x: number; readonly y: number; readonly width: number; readonly height: number };

function bracing({ x, y, width, height }: Box): string {
  const bays = Math.max(2, Math.round(width / Math.max(10, height * 1.4)));
  const points = Array.from({ length: bays + 1 }, (_, i) => `${x + (width * i) / bays} ${i % 2 ? y : y + height}`);
  return `M${points.join('L')}`;
}

function folds({ x, y, width, height }: Box): string {
  const waves = Math.max(4, Math.round(width / 14));
  const step = width / waves;
  const arcs = Array.from({ length: waves }, (_, i) => `q${step / 2} ${i % 2 ? 8 : -8} ${step} 0`);
  return `M${x} ${y + height / 2}${arcs.join('')}`;
}

type LampProps = {
  readonly lamp: Patched;
  readonly look: Look;
  readonly colour: string;
  readonly chosen: boolean;
  /** Taken by hand. */
  readonly held: boolean;
  readonly onPress: (id: string) => void;
};

export const LampMark = memo(function LampMark({ lamp, look, colour, chosen, held, onPress }: LampProps) {
  const { fixture } = lamp;
  const { palette } = look;
  const [cx, cy] = [look.x(fixture.mount.x), look.y(look.from === 'above' ? fixture.mount.y : fixture.mount.z)];
  const name = fixture.label ?? String(fixture.number);
  // Many lamps on a small plan: their marks grow with the zoom until they are as large as they get.
  const grown = Math.min(1, Math.max(0.55, look.scale / 26));
  const wide = Math.max(22, name.length * 8 + 8) * grown;
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={WORDS.onThePlan(fixture.name)}
      aria-pressed={chosen}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        event.stopPropagation();
        onPress(fixture.id);
      }}
      style={{ cursor: 'pointer', outlineOffset: -8, pointerEvents: 'auto' }}
    >
      <rect x={cx - 22} y={cy - 22} width={44} height={44} fill="transparent" />
      {held && (
        <circle cx={cx} cy={cy} r={19} fill="none" stroke={palette.warn} strokeWidth={2} strokeDasharray="4 3" />
      )}
      <rect
        x={cx - wide / 2}
        y={cy - 11 * grown}
        width={wide}
        height={22 * grown}
        rx={7 * grown}
        fill={chosen ? palette.doing : palette.ground}
        stroke={chosen ? palette.doing : colour}
        strokeWidth={2.2}
      />
      <text
        x={cx}
        y={cy + 4.5 * grown}
        fill={chosen ? palette.onDoing : palette.text}
        fontSize={12 * grown}
        fontWeight={600}
        textAnchor="middle"
        fontFamily="Spline Sans Mono"
      >
        {name}
      </text>
    </g>
  );
});

const direction = new Float64Array(3);

/** A soft wedge the way the lamp points when it rests. Towards the eye it has none. */
export function Wedge({
  lamp,
  look,
  colour,
}: {
  readonly lamp: Patched;
  readonly look: Look;
  readonly colour: string;
}) {
  const { fixture, profile } = lamp;
  if (profile.kind === 'hazer') return null;
  beamDirection(mountRotation(fixture.mount), 0, 0, direction);
  const up = look.from === 'above' ? 1 : 2;
  const flat = Math.hypot(direction[0]!, direction[up]!);
  if (flat < 0.12) return null;
  const [ux, uy] = [direction[0]! / flat, direction[up]! / flat];
  const reach = Math.min(2.3, 1 + flat * 1.6);
  const half = Math.min(0.9, reach * Math.tan((profile.beamAngle * Math.PI) / 360) + 0.12);
  const [x, y] = [fixture.mount.x, up === 1 ? fixture.mount.y : fixture.mount.z];
  const corner = (side: number) =>
    `${look.x(x + ux * reach - uy * half * side)} ${look.y(y + uy * reach + ux * half * side)}`;
  return <path d={`M${look.x(x)} ${look.y(y)}L${corner(1)}L${corner(-1)}Z`} fill={colour} opacity={0.22} />;
}

type AimProps = { readonly aim: Aim; readonly look: Look; readonly chosen: boolean; readonly faint: boolean };

export function AimMark({ aim, look, chosen, faint }: AimProps) {
  const { palette } = look;
  const [cx, cy] = [look.x(aim.x), look.y(look.from === 'above' ? aim.y : aim.z)];
  const colour = chosen ? palette.doing : palette.live;
  // About half the name's width, so that it never leaves the picture.
  const half = aim.name.length * 3.4 + 4;
  return (
    <g opacity={faint ? 0.55 : 1} aria-label={WORDS.aimOfMark(aim.name)} role="img">
      <circle cx={cx} cy={cy} r={chosen ? 10 : 7} stroke={colour} strokeWidth={chosen ? 2.5 : 1.5} fill="none" />
      <path d={`M${cx - 12} ${cy}h24M${cx} ${cy - 12}v24`} stroke={colour} strokeWidth={1.2} />
      {!faint && (
        <text
          x={Math.min(look.width - half, Math.max(half, cx))}
          y={cy - 16}
          fill={colour}
          fontSize={13}
          textAnchor="middle"
          fontFamily="Figtree"
        >
          {aim.name}
        </text>
      )}
    </g>
  );
}
