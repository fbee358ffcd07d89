// A gobo as far as a coin-sized picture can show it.

import type { Gobo } from '@hovlix/core/rig';
import { usePalette } from '../../../ui/palette';

const DOTS = [
  [8, 8],
  [16, 8],
  [12, 13],
  [7, 17],
  [17, 17],
] as const;
const LINES = [5, 9, 13, 17];

export function GoboPicture({ pattern, on }: { readonly pattern: Gobo['pattern']; readonly on: boolean }) {
  const palette = usePalette();
  const ink = on ? palette.text : palette.ground;
  const light = on ? palette.ground : palette.text;
  return (
    <svg width={24} height={24} viewBox="0 0 24 24" aria-hidden fill="none" stroke={ink} strokeWidth={1.6}>
      <circle cx={12} cy={12} r={11} fill={light} stroke="none" />
      {pattern === 'dots' &&
        DOTS.map(([x, y]) => <circle key={`${x}${y}`} cx={x} cy={y} r={2} fill={ink} stroke="none" />)}
      {pattern === 'rays' &&
        [0, 45, 90, 135].map((turn) => <path key={turn} d="M12 2v20" transform={`rotate(${turn} 12 12)`} />)}
      {pattern === 'bars' && LINES.map((x) => <path key={x} d={`M${x + 1} 3v18`} />)}
      {pattern === 'waves' && LINES.map((y) => <path key={y} d={`M2 ${y}q5-4 10 0t10 0`} />)}
      {pattern === 'rings' && [4, 8].map((r) => <circle key={r} cx={12} cy={12} r={r} />)}
      {pattern === 'net' &&
        LINES.flatMap((at) => [
          <path key={`v${at}`} d={`M${at + 1} 3v18`} />,
          <path key={`h${at}`} d={`M3 ${at + 1}h18`} />,
        ])}
      {pattern === 'leaves' &&
        DOTS.map(([x, y]) => (
          <path key={`${x}${y}`} d={`M${x - 3} ${y + 2}q3-6 6-4q0 5-6 4z`} fill={ink} stroke="none" />
        ))}
    </svg>
  );
}
