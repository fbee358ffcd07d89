// Who else is there: nodes that answered, senders in our way, and what held the light up.

import { incidentInWords, type Status } from '@hovlix/core/connect';
import { useHovlix, useConnections } from '../../host/hovlix';
import { Card, State } from '../../ui/card';
import { Typed } from '../../ui/form';
import { Button, Quiet, Row, Words } from '../../ui/pieces';

export function NetworkCard({ status }: { readonly status: Status }) {
  const app = useHovlix();
  const connections = useConnections((state) => state.connections);
  const { nodes = [], clashes = [], bad = 0, lastBad = null } = status.input ?? {};
  if (!connections) return null;
  return (
    <Card title="On the network">
      {clashes.map((clash) => (
        <State key={`${clash.address}${clash.name}`} colour="$fault" word={`${clash.name} sends our universes too`}>
          <Quiet>
            {clash.address} sends number {clash.universes.join(', ')} as well.{' '}
            {clash.twin
              ? 'It even has this computer’s identity: somebody copied its folder. Delete “cid” in the copy and start it anew.'
              : 'Lamps get both. Stop one of them, or give ours a higher priority.'}
          </Quiet>
        </State>
      ))}
      {nodes.length === 0 && <Quiet>No Art-Net node has answered yet. They are asked every three seconds.</Quiet>}
      {nodes.map((node) => (
        <State key={`${node.address}${node.outputs.join()}`} colour="$live" word={node.shortName || node.longName}>
          <Quiet>
            {node.longName} · {node.address}
            {node.outputs.length > 0 && ` · DMX sockets for universe ${node.outputs.join(', ')}, counted from 0`}
          </Quiet>
        </State>
      ))}
      {bad > 0 && (
        <Quiet>
          {bad.toLocaleString('en')} packets from the network could not be read and were ignored. The last: {lastBad}.
        </Quiet>
      )}
      <Typed<string>
        label="Our name on the network"
        value={connections.sourceName as string}
        read={(text) =>
          text.trim().length >= 1 && text.trim().length <= 60
            ? { value: text.trim() }
            : { wrong: 'One to sixty letters; desks and nodes show it.' }
        }
        onChange={(sourceName) => app.connections.make({ type: 'name-source', sourceName })}
      />
      <Row gap={12} justifyContent="space-between">
        <Words flex={1}>
          {connections.sync
            ? 'Universes change at the same instant (sync packets).'
            : 'Universes change as they arrive, without sync packets.'}
        </Words>
        <Button
          label="Universes change together"
          pressed={connections.sync}
          onPress={() => app.connections.make({ type: 'choose-sync', sync: !connections.sync })}
        >
          {connections.sync ? 'Sync is on' : 'Sync is off'}
        </Button>
      </Row>
      {status.troubles.map((trouble) => (
        <State key={trouble} colour="$warn" word="Trouble">
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
