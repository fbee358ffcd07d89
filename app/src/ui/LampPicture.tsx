// A lamp type's own picture, or each kind as we draw it: its body hanging from a clamp, and what it does with light.

import { useId, type ReactNode } from 'react';
import Svg, { Circle, Defs, G, LinearGradient, Path, Rect, Stop } from 'react-native-svg';
import { Image } from 'react-native';
import type { Profile } from '@hovlix/core/rig';
import { usePalette } from './palette';

type Props = { readonly of: Pick<Profile, 'kind' | 'picture'>; readonly size?: number };

/** The body, and the light that leaves it, in a box of 40. */
const DRAWN: Readonly<Record<Profile['kind'], { readonly body: ReactNode; readonly light: string }>> = {
  dimmer: {
    body: <Path d="M20 5v4M14 9h12l2 6v6H12v-6zM12 17h16" />,
    light: 'M12 23h16l5 13H7z',
  },
  par: {
    body: (
      <Path d="M20 5v3M13 14V9.500a1.5 1.5 0 0 1 1.5-1.500h11A1.5 1.5 0 0 1 27 9.500V14M12 14h16v7a2 2 0 0 1-2 2H14a2 2 0 0 1-2-2z" />
    ),
    light: 'M14 24h12l6 12H8z',
  },
  wash: {
    body: (
      <>
        <Path d="M20 5v3M10 8h20M10 8v7M30 8v7" />
        <Circle cx={20} cy={16} r={8.5} />
        <Circle cx={20} cy={16} r={1.6} />
        <Circle cx={16} cy={16} r={1.6} />
        <Circle cx={24} cy={16} r={1.6} />
        <Circle cx={18} cy={12.6} r={1.6} />
        <Circle cx={22} cy={12.6} r={1.6} />
        <Circle cx={18} cy={19.4} r={1.6} />
        <Circle cx={22} cy={19.4} r={1.6} />
      </>
    ),
    light: 'M14 26h12l7 10H7z',
  },
  bar: {
    body: (
      <>
        <Path d="M9 6v4M31 6v4" />
        <Rect x={4} y={10} width={32} height={8} rx={2} />
        <Path d="M12 10v8M20 10v8M28 10v8" />
      </>
    ),
    light: 'M6 20h28l4 16H2z',
  },
  strobe: {
    body: (
      <>
        <Path d="M20 5v4" />
        <Rect x={6} y={9} width={28} height={12} rx={2} />
        <Path d="M21.5 11.5 18 15.500h4l-3.5 4" />
      </>
    ),
    light: 'M6 23h28l-3 4 3 3-3 3 3 3H6l3-3-3-3 3-3z',
  },
  'moving spot': {
    body: <Path d="M13 5h14v3H13zM20 8v2M12 10h16M12 10v9M28 10v9M15.5 13h9v10l-2 3h-5l-2-3z" />,
    light: 'M18.5 27h3l3 9h-9z',
  },
  'moving wash': {
    body: (
      <>
        <Path d="M13 4h14v3H13zM20 7v2M10 9h20M10 9v9M30 9v9" />
        <Circle cx={20} cy={17} r={7.5} />
        <Circle cx={20} cy={17} r={3.5} />
      </>
    ),
    light: 'M14 26h12l6 10H8z',
  },
  hazer: {
    body: <Path d="M6 20h20v14H6zM26 24h4v6h-4M10 34v2M22 34v2M10 25h8" />,
    light: 'M31 25c3-1 2-5 5-5-1-4-6-3-6-7-4 0-4 4-7 5 2 2 5 1 8 7z',
  },
};

/** A type's own picture, or its kind as we draw it. */
export function LampPicture({ of, size = 40 }: Props) {
  if (!of.picture) return <Drawn kind={of.kind} size={size} />;
  return (
    <Image
      source={{ uri: of.picture }}
      resizeMode="contain"
      aria-hidden
      style={{ width: size, height: size, borderRadius: 8 }}
    />
  );
}

function Drawn({ kind, size }: { readonly kind: Profile['kind']; readonly size: number }) {
  const palette = usePalette();
  const { body, light } = DRAWN[kind];
  const id = useId();
  const glow = kind === 'hazer' ? palette.quiet : palette.doing;
  return (
    <Svg width={size} height={size} viewBox="0 0 40 40" aria-hidden>
      <Defs>
        <LinearGradient id={id} x1="0" y1="0" x2="0" y2="1">
          <Stop offset="0" stopColor={glow} stopOpacity={0.85} />
          <Stop offset="1" stopColor={glow} stopOpacity={0.04} />
        </LinearGradient>
      </Defs>
      <Path d={light} fill={`url(#${id})`} />
      <G fill="none" stroke={palette.text} strokeWidth={1.6} strokeLinecap="round" strokeLinejoin="round">
        {body}
      </G>
    </Svg>
  );
}
