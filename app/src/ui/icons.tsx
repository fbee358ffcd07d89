// The five places, drawn by us: one line weight, round ends.

import Svg, { Circle, Path, Rect } from 'react-native-svg';

type IconProps = { readonly color: string; readonly size?: number };

function Icon({ color, size = 22, children }: IconProps & { readonly children: React.ReactNode }) {
  return (
    <Svg
      width={size}
      height={size}
      viewBox="0 0 24 24"
      fill="none"
      stroke={color}
      strokeWidth={1.7}
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden
    >
      {children}
    </Svg>
  );
}

export const RigIcon = (props: IconProps) => (
  <Icon {...props}>
    <Path d="M3 6h18M3 9.5h18M5.5 6l3 3.5M12 6l-3 3.5M12 6l3 3.5M18.500 6l-3 3.500" />
    <Path d="M6.500 9.500v3M17.500 9.500v3M4.500 18l1-5.500h2l1 5.500zM15.500 18l1-5.500h2l1 5.500z" />
  </Icon>
);

export const LooksIcon = (props: IconProps) => (
  <Icon {...props}>
    <Rect x={3.5} y={3.5} width={7} height={7} rx={2} />
    <Rect x={13.5} y={3.5} width={7} height={7} rx={2} />
    <Rect x={3.5} y={13.5} width={7} height={7} rx={2} />
    <Path d="M17 13.500v7M13.500 17h7" />
  </Icon>
);

export const SongsIcon = (props: IconProps) => (
  <Icon {...props}>
    <Path d="M9.500 17.500V5.500l10-2v12" />
    <Circle cx={7} cy={17.5} r={2.5} />
    <Circle cx={17} cy={15.5} r={2.5} />
  </Icon>
);

export const GigIcon = (props: IconProps) => (
  <Icon {...props}>
    <Path d="M12 3v4M5.500 5l2 3M18.500 5l-2 3" />
    <Path d="M6 14a6 5 0 0 1 12 0M3.500 14h17v3h-17zM5.500 17v4M18.500 17v4" />
  </Icon>
);

export const ConnectIcon = (props: IconProps) => (
  <Icon {...props}>
    <Path d="M9 3v5M15 3v5M6.500 8h11v4a5.500 5.500 0 0 1-11 0zM12 17.500V21" />
  </Icon>
);

export const MoonIcon = (props: IconProps) => (
  <Icon {...props}>
    <Path d="M19.500 14.500A8 8 0 0 1 9.500 4.500a8 8 0 1 0 10 10z" />
  </Icon>
);
