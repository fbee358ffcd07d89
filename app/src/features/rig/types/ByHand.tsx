// A lamp's channels one by one, by hand, over everything the show says.

import { useMemo } from 'react';
import type { Patched } from '@hovlix/core/rig';
import { hand } from '../../../host/conduct/hold-lamps';
import { useHovlix } from '../../../host/hovlix';
import { Button, Column, Quiet, Row } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { LiveChannel } from './LiveChannel';
import { useBytes } from './use-bytes';

export function ByHand({ lamp, onClose }: { readonly lamp: Patched; readonly onClose: () => void }) {
  const app = useHovlix();
  const hands = useMemo(() => hand(app, true), [app]);
  const bytes = useBytes(lamp);
  return (
    <Sheet title={`${lamp.fixture.name} by hand`} onClose={onClose}>
      <Quiet>What you move stays by hand until you release it, whatever the show does.</Quiet>
      <Row gap={8} flexWrap="wrap">
        <Button kind="primary" onPress={() => hands.hold([[lamp, { level: 1 }]])}>
          Light it
        </Button>
        <Button onPress={() => hands.free([lamp])}>Release</Button>
      </Row>
      <Column>
        {lamp.mode.channels.map((channel) => (
          <LiveChannel key={channel.at.join('+')} lamp={lamp} channel={channel} bytes={bytes} />
        ))}
      </Column>
    </Sheet>
  );
}
