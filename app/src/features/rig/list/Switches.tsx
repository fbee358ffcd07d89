// The address switches as they look on the lamp: 1 at the left, up is on.

import { dipSwitches, type Patched } from '@hovlix/core/rig';
import { usePalette } from '../../../ui/palette';
import { Row } from '../../../ui/pieces';

export function Switches({ address }: { readonly address: Patched['fixture']['address'] }) {
  const palette = usePalette();
  return (
    <Row gap={2} aria-hidden>
      {dipSwitches(address).map((on, i) => (
        <span
          key={i}
          style={{
            width: 8,
            height: 18,
            borderRadius: 2,
            background: palette.well,
            position: 'relative',
            display: 'block',
          }}
        >
          <span
            style={{
              position: 'absolute',
              left: 1,
              right: 1,
              height: 8,
              borderRadius: 1,
              top: on ? 1 : 9,
              background: on ? palette.text : palette.faint,
            }}
          />
        </span>
      ))}
    </Row>
  );
}
