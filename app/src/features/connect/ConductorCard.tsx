// Who keeps the order of what is pressed, and how many follow.

import { useLink } from '../../host/hovlix';
import { Card, State } from '../../ui/card';
import { Quiet, Words } from '../../ui/pieces';

export function ConductorCard({ screens }: { readonly screens: number | undefined }) {
  const conductor = useLink((link) => link.conductor);
  const refused = useLink((link) => link.refused);
  return (
    <Card title="Conductor">
      {conductor === 'server' && (
        <State colour="$live" word="The Hovlix server conducts">
          <Quiet>
            It keeps the order of what is pressed and sends DMX.{' '}
            {screens === undefined ? '' : screens === 1 ? 'This is the only screen.' : `${screens} screens follow it.`}{' '}
            Closing this page changes nothing on stage.
          </Quiet>
        </State>
      )}
      {conductor === 'browser' && (
        <State colour="$warn" word="This browser conducts by itself">
          <Quiet>
            Everything works except output: a web page cannot send DMX. For lamps, start Hovlix on this computer with
            ./start and open the address it prints.
          </Quiet>
        </State>
      )}
      {conductor === 'lost' && (
        <State colour="$fault" word="The server does not answer">
          <Quiet>
            It was here and has gone. This browser goes on by itself and takes the server back as soon as it answers.
          </Quiet>
        </State>
      )}
      {conductor === 'looking' && <State colour="$faint" word="Looking for the server" />}
      {refused && <Words color="$warn">The conductor refused a message: {refused}</Words>}
    </Card>
  );
}
