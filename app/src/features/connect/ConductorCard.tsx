// Who keeps the order of what is pressed, and how many follow.

import { useLink } from '../../host/hovlix';
import { Card, State } from '../../ui/card';
import { Quiet, Words } from '../../ui/pieces';
import { WORDS } from './words';

export function ConductorCard({ screens }: { readonly screens: number | undefined }) {
  const conductor = useLink((link) => link.conductor);
  const refused = useLink((link) => link.refused);
  return (
    <Card title={WORDS.conductor}>
      {conductor === 'server' && (
        <State colour="$live" word={WORDS.hovlixServerConducts}>
          <Quiet>
            {WORDS.keepsOrderWhat(
              screens === undefined ? '' : screens === 1 ? 'This is the only screen.' : `${screens} screens follow it.`,
            )}
          </Quiet>
        </State>
      )}
      {conductor === 'browser' && (
        <State colour="$warn" word={WORDS.browserConductsBy}>
          <Quiet>{WORDS.everythingWorksExcept}</Quiet>
        </State>
      )}
      {conductor === 'lost' && (
        <State colour="$fault" word={WORDS.serverDoesNot}>
          <Quiet>{WORDS.wasHereHas}</Quiet>
        </State>
      )}
      {conductor === 'looking' && <State colour="$faint" word={WORDS.lookingServer} />}
      {refused && <Words color="$warn">{WORDS.conductorRefusedMessage(refused)}</Words>}
    </Card>
  );
}
