// Who else is there: nodes that answered, senders in our way, and what held the light up.

import { incidentInWords, type Status } from '@hovlix/core/connect';
import { useHovlix, useConnections } from '../../host/hovlix';
import { Card, State } from '../../ui/card';
import { Typed } from '../../ui/form';
import { Button, Quiet, Row, Words } from '../../ui/pieces';
import { WORDS } from './words';

export function NetworkCard({ status }: { readonly status: Status }) {
  const app = useHovlix();
  const connections = useConnections((state) => state.connections);
  const { nodes = [], clashes = [], bad = 0, lastBad = null } = status.input ?? {};
  if (!connections) return null;
  return (
    <Card title={WORDS.onTheNetwork}>
      {clashes.map((clash) => (
        <State key={`${clash.address}${clash.name}`} colour="$fault" word={WORDS.sendsOurUniverses(clash.name)}>
          <Quiet>
            {WORDS.sendsNumberAs(
              clash.address,
              clash.universes.join(', '),
              clash.twin
                ? 'It even has this computer’s identity: somebody copied its folder. Delete “cid” in the copy and start it anew.'
                : 'Lamps get both. Stop one of them, or give ours a higher priority.',
            )}
          </Quiet>
        </State>
      ))}
      {nodes.length === 0 && <Quiet>{WORDS.noArtNet}</Quiet>}
      {nodes.map((node) => (
        <State key={`${node.address}${node.outputs.join()}`} colour="$live" word={node.shortName || node.longName}>
          <Quiet>
            {node.longName} · {node.address}
            {node.outputs.length > 0 && ` · DMX sockets for universe ${node.outputs.join(', ')}, counted from 0`}
          </Quiet>
        </State>
      ))}
      {bad > 0 && <Quiet>{WORDS.packetsFromNetwork(bad, lastBad ?? '')}</Quiet>}
      <Typed<string>
        label={WORDS.ourNameNetwork}
        patient
        value={connections.sourceName as string}
        read={(text) =>
          text.trim().length >= 1 && text.trim().length <= 60
            ? { value: text.trim() }
            : { wrong: WORDS.oneSixtyLetters }
        }
        onChange={(sourceName) => app.connections.make({ type: 'name-source', sourceName })}
      />
      <Row gap={12} justifyContent="space-between">
        <Words flex={1}>{connections.sync ? WORDS.universesChangeSame : WORDS.universesChangeAs}</Words>
        <Button
          label={WORDS.universesChangeTogether}
          pressed={connections.sync}
          onPress={() => app.connections.make({ type: 'choose-sync', sync: !connections.sync })}
        >
          {connections.sync ? WORDS.syncIsOn : WORDS.syncIsOff}
        </Button>
      </Row>
      {status.troubles.map((trouble) => (
        <State key={trouble} colour="$warn" word={WORDS.trouble}>
          <Quiet>{trouble}</Quiet>
        </State>
      ))}
      {status.output?.incidents.map((incident) => (
        <State key={incident.at} colour="$warn" word={new Date(incident.at).toLocaleTimeString()}>
          <Quiet>{incidentInWords(incident)}</Quiet>
        </State>
      ))}
    </Card>
  );
}
