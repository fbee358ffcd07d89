// Are we sending at all? Not blackout: blackout sends darkness, this sends nothing.

import { useHovlix, useLive } from '../host/hovlix';
import { Hold } from './Hold';
import { Button } from './pieces';
import { WORDS } from './words';

export function MasterOutput() {
  const app = useHovlix();
  const sending = useLive((live) => live.sending);
  if (sending)
    return <Hold onHeld={() => app.conducting.act({ type: 'sending', on: false })}>{WORDS.holdToStopSending}</Hold>;
  return (
    <Button kind="primary" onPress={() => app.conducting.act({ type: 'sending', on: true })}>
      Start sending
    </Button>
  );
}
