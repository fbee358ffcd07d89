// How near the chosen lamps come to the colour that is wanted, at a glance: it beside what each makes of it.

import Svg, { Circle, Path } from 'react-native-svg';
import { hexFromChromaticity, type Chromaticity } from '@hovlix/core/colour';
import type { Patched } from '@hovlix/core/rig';
import { usePalette } from '../../../ui/palette';
import { Column, Quiet, Row, Words } from '../../../ui/pieces';
import { matchGroups, matchWords } from './model';
import { WORDS } from './words';

type Props = { readonly lamps: readonly Patched[]; readonly colour: Chromaticity };

export function ColourMatches({ lamps, colour }: Props) {
  const groups = matchGroups(lamps, colour);
  if (groups.length === 0) return null;
  const wanted = hexFromChromaticity(colour);
  return (
    <Column gap={8} role="status" aria-label={WORDS.howNearLamps}>
      <Quiet>{matchWords(groups)}</Quiet>
      <Row gap={12} flexWrap="wrap" alignItems="flex-start">
        {groups.map(({ key, name, count, hex, words }) => (
          <Row key={key} gap={8} minWidth={0} maxWidth="100%">
            <Halves wanted={wanted} made={hex} />
            <Column flexShrink={1} minWidth={0}>
              <Words fontSize={14} lineHeight={18}>
                {count > 1 ? `${count} × ${name}` : name}
              </Words>
              <Quiet>{words}</Quiet>
            </Column>
          </Row>
        ))}
      </Row>
    </Column>
  );
}

const SIZE = 36;

/** Left what is wanted, right what comes; hollow where nobody knows. */
function Halves({ wanted, made }: { readonly wanted: string; readonly made: string | null }) {
  const palette = usePalette();
  const r = SIZE / 2;
  return (
    <Svg width={SIZE} height={SIZE} viewBox={`0 0 ${SIZE} ${SIZE}`} aria-hidden>
      <Path d={`M${r} 1A${r - 1} ${r - 1} 0 0 0 ${r} ${SIZE - 1}Z`} fill={wanted} />
      <Path d={`M${r} 1A${r - 1} ${r - 1} 0 0 1 ${r} ${SIZE - 1}Z`} fill={made ?? 'none'} />
      <Circle cx={r} cy={r} r={r - 1} fill="none" stroke={palette.line} strokeWidth={1.5} />
    </Svg>
  );
}
