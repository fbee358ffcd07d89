// A lamp's channels one by one, by hand, over everything the show says.

import { useMemo } from 'react';
import type { Patched } from '@hovlix/core/rig';
import { hand } from '../../../host/conduct/hold-lamps';
import { useHovlix } from '../../../host/hovlix';
import { Button, Column, Quiet, Row } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { LiveChannel } from './LiveChannel';
import { useBytes } from './use-bytes';
import { WORDS } from './words';

export function ByHand({ lamp, onClose }: { readonly lamp: Patched; readonly onClose: () => void }) {
  const app = useHovlix();
  const hands = useMemo(() => hand(app, true), [app]);
  const bytes = useBytes(lamp);
  return (
    <Sheet title={WORDS.byHand(lamp.fixture.name)} onClose={onClose}>
      <Quiet>{WORDS.whatYouMove}</Quiet>
      <Row gap={8} flexWrap="wrap">
        <Button kind="primary" onPress={() => hands.hold([[lamp, { level: 1 }]])}>
          {WORDS.lightIt}
        </Button>
        <Button onPress={() => hands.free([lamp])}>{WORDS.release}</Button>
      </Row>
      <Column>
        {lamp.mode.channels.map((channel) => (
          <LiveChannel key={channel.at.join('+')} lamp={lamp} channel={channel} bytes={bytes} />
        ))}
      </Column>
    </Sheet>
  );
}
