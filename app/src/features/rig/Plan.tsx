// The stage from above, audience below: where each lamp hangs and which way it points.

import Svg, { Circle, G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import { View } from '@tamagui/core';
import { beamDirection, mountRotation, type Aim, type Patched } from '@hovlix/core/rig';
import { usePalette, useTints } from '../../ui/palette';

type Props = {
  readonly patched: readonly Patched[];
  readonly aims: readonly Aim[];
  readonly tintOf: (fixture: string) => number | undefined;
  readonly chosen: string | null;
  readonly onChoose: (fixture: string) => void;
};

/** Pixels a metre in the picture's own units. */
const SCALE = 36;
const AROUND = { left: -5.4, right: 5.4, back: 5.4, front: -3.2 };

export function Plan({ patched, aims, tintOf, chosen, onChoose }: Props) {
  const palette = usePalette();
  const tints = useTints();
  const x = (metres: number) => (metres - AROUND.left) * SCALE;
  const y = (metres: number) => (AROUND.back - metres) * SCALE;
  const [width, height] = [(AROUND.right - AROUND.left) * SCALE, (AROUND.back - AROUND.front) * SCALE];
  const onStage = aims.filter((aim) => aim.y > 0 && Math.abs(aim.x) < 3);
  return (
    <View marginHorizontal={12} borderRadius={14} overflow="hidden" backgroundColor="$sunken">
      <Svg
        viewBox={`0 0 ${width} ${height}`}
        style={{ width: '100%', aspectRatio: width / height }}
        aria-label="The stage from above"
      >
        <Rect
          x={x(-4.4)}
          y={y(4.8)}
          width={8.8 * SCALE}
          height={4.8 * SCALE}
          rx={8}
          fill={palette.raised}
          stroke={palette.line}
        />
        <Rect x={x(-1.4)} y={y(4.3)} width={2.8 * SCALE} height={1.5 * SCALE} rx={6} fill={palette.well} />
        <SvgText x={x(0)} y={y(-2.95)} fill={palette.quiet} fontSize={14} textAnchor="middle" fontFamily="Figtree">
          audience
        </SvgText>
        <Line
          x1={x(-4.6)}
          x2={x(4.6)}
          y1={y(4)}
          y2={y(4)}
          stroke={palette.line}
          strokeWidth={5}
          strokeLinecap="round"
        />
        <Line
          x1={x(-3.6)}
          x2={x(3.6)}
          y1={y(-2.2)}
          y2={y(-2.2)}
          stroke={palette.line}
          strokeWidth={5}
          strokeLinecap="round"
        />
        {patched.map((one) => {
          const tint = tintOf(one.fixture.id);
          return (
            <Wedge
              key={one.fixture.id}
              {...one}
              colour={tint === undefined ? palette.faint : tints[tint]!}
              x={x}
              y={y}
            />
          );
        })}
        {patched.map(({ fixture }) => {
          const tint = tintOf(fixture.id);
          const on = fixture.id === chosen;
          const [cx, cy] = [x(fixture.mount.x), y(fixture.mount.y)];
          return (
            <G key={fixture.id} onPress={() => onChoose(fixture.id)} aria-label={`${fixture.name} on the plan`}>
              <Rect x={cx - 22} y={cy - 22} width={44} height={44} fill="transparent" />
              <Rect
                x={cx - 11}
                y={cy - 11}
                width={22}
                height={22}
                rx={7}
                fill={on ? palette.doing : palette.ground}
                stroke={on ? palette.doing : tint === undefined ? palette.faint : tints[tint]}
                strokeWidth={2.2}
              />
              <SvgText
                x={cx}
                y={cy + 4.5}
                fill={on ? palette.onDoing : palette.text}
                fontSize={12}
                fontWeight="600"
                textAnchor="middle"
                fontFamily="Spline Sans Mono"
              >
                {fixture.number}
              </SvgText>
            </G>
          );
        })}
        {onStage.map((aim) => (
          <G key={aim.id}>
            <Circle cx={x(aim.x)} cy={y(aim.y)} r={7} stroke={palette.live} strokeWidth={1.5} fill="none" />
            <Path
              d={`M${x(aim.x) - 11} ${y(aim.y)}h22M${x(aim.x)} ${y(aim.y) - 11}v22`}
              stroke={palette.live}
              strokeWidth={1.2}
            />
            <SvgText
              x={x(aim.x)}
              y={y(aim.y) - 15}
              fill={palette.live}
              fontSize={13}
              textAnchor="middle"
              fontFamily="Figtree"
            >
              {aim.name}
            </SvgText>
          </G>
        ))}
      </Svg>
    </View>
  );
}

const direction = new Float64Array(3);

/** A soft wedge the way the lamp points when it rests. Straight down has none. */
function Wedge({
  fixture,
  profile,
  colour,
  x,
  y,
}: Patched & { readonly colour: string; readonly x: (m: number) => number; readonly y: (m: number) => number }) {
  beamDirection(mountRotation(fixture.mount), 0, 0, direction);
  const flat = Math.hypot(direction[0]!, direction[1]!);
  if (flat < 0.12 || profile.kind === 'hazer') return null;
  const [ux, uy] = [direction[0]! / flat, direction[1]! / flat];
  const reach = Math.min(2.3, 1 + flat * 1.6);
  const half = Math.min(0.9, reach * Math.tan((profile.beamAngle * Math.PI) / 360) + 0.12);
  const corner = (side: number) =>
    `${x(fixture.mount.x + ux * reach - uy * half * side)} ${y(fixture.mount.y + uy * reach + ux * half * side)}`;
  return (
    <Path d={`M${x(fixture.mount.x)} ${y(fixture.mount.y)}L${corner(1)}L${corner(-1)}Z`} fill={colour} opacity={0.28} />
  );
}
