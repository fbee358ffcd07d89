// One output: every part of its way to the lamps. What is changed counts at once and can be undone.

import { numbersInWords, DELAY_MS, Ipv4, type OutputRow, type Status, type Way } from '@hovlix/core/connect';
import { id, universe } from '@hovlix/core/units';
import { freshId } from '../../host/fresh-id';
import { useHovlix, useConnections } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { State } from '../../ui/card';
import { Choose, Labelled, Typed, wholeNumber } from '../../ui/form';
import { Button, Figures, Quiet, Row, Column } from '../../ui/pieces';
import { Segments } from '../../ui/Segments';
import { Sheet } from '../../ui/Sheet';
import { networkChoices, stateOf } from './model';
import { SheetFoot } from './SheetFoot';
import { WORDS } from './words';

type Props = {
  readonly output: string;
  readonly status: Status;
  readonly onClose: () => void;
  /** Goes on with another output. */
  readonly onEdit: (output: string) => void;
};

export function OutputSheet({ output, status, onClose, onEdit }: Props) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const row = useConnections((state) => state.connections?.outputs.find((one) => one.id === output));
  if (!row) return null;
  const put = (change: Partial<OutputRow>) =>
    app.connections.make({ type: 'put-output', row: { ...row, ...change } as OutputRow });
  const { way } = row;
  const report = status.output?.rows.find((one) => one.id === output);
  const { word, tone, why } = stateOf(row, report);
  return (
    <Sheet title={WORDS.universeAlone(row.universe)} onClose={onClose}>
      <Row justifyContent="space-between" gap={12} alignItems="flex-start">
        <State colour={tone} word={word}>
          {why && <Quiet>{why}</Quiet>}
        </State>
        <Figures fontSize={15} color="$text">
          {Math.round(report?.packetsPerSecond ?? 0)}/s
        </Figures>
      </Row>
      <Labelled label={WORDS.sendBy}>
        <Segments
          label={WORDS.sendBy}
          value={way.protocol}
          choices={[
            { value: 'sacn', name: 'sACN' },
            { value: 'artnet', name: 'Art-Net' },
            { value: 'serial', name: 'USB cable' },
          ]}
          onChoose={(protocol) => put({ way: wayBy(protocol, row, status) })}
        />
      </Labelled>
      {way.protocol === 'serial' ? (
        <CableFields way={way} status={status} onChange={(next) => put({ way: next })} />
      ) : (
        <NetworkFields way={way} status={status} onChange={(next) => put({ way: next })} />
      )}
      <Row gap={12} alignItems="flex-start">
        <Column flex={1}>
          <Typed
            label={WORDS.hovlixUniverse}
            patient
            numeric
            value={row.universe as number}
            read={wholeNumber(1, 63999)}
            onChange={(number) => put({ universe: universe(number) })}
          />
        </Column>
        <Column flex={1}>
          <Typed
            label={WORDS.delayMs}
            numeric
            value={row.delayMs}
            hint={WORDS.negativeSendsEarlier}
            read={wholeNumber(DELAY_MS.least, DELAY_MS.most)}
            onChange={(delayMs) => put({ delayMs })}
          />
        </Column>
      </Row>
      <Row>
        <Button
          onPress={() => {
            const twin = { ...row, id: id<'Output'>(freshId()) };
            app.connections.make({ type: 'put-output', row: twin });
            onEdit(twin.id);
          }}
        >
          {WORDS.sendUniverseElsewhere(row.universe)}
        </Button>
      </Row>
      <SheetFoot
        on={row.on}
        what="output"
        onSwitch={(on) => put({ on })}
        onRemove={() => {
          app.connections.make({ type: 'remove-output', output: row.id });
          say(WORDS.outputUniverseGone(row.universe), { undo: app.connections.takingBack() });
          onClose();
        }}
      />
    </Sheet>
  );
}

type Fields<W extends Way> = { readonly way: W; readonly status: Status; readonly onChange: (way: Way) => void };

function NetworkFields({ way, status, onChange }: Fields<Exclude<Way, { protocol: 'serial' }>>) {
  const everyone = way.protocol === 'sacn' ? 'multicast' : 'broadcast';
  const one = way.to !== everyone;
  const nodes = status.input?.nodes ?? [];
  const to = (address: string) => onChange({ ...way, to: address } as Way);
  return (
    <>
      <Labelled label={WORDS.to}>
        <Segments
          label={WORDS.to}
          value={one ? 'one' : 'everyone'}
          choices={[
            { value: 'everyone', name: way.protocol === 'sacn' ? WORDS.everyoneMulticast : WORDS.everyoneBroadcast },
            { value: 'one', name: WORDS.oneDevice },
          ]}
          onChoose={(choice) => to(choice === 'everyone' ? everyone : (nodes[0]?.address ?? '127.0.0.1'))}
        />
      </Labelled>
      {one && way.protocol === 'artnet' && nodes.length > 0 && (
        <Choose
          label={WORDS.foundNodes}
          value={way.to}
          choices={[...new Map(nodes.map((node) => [node.address, node])).values()].map((node) => ({
            value: node.address,
            name: `${node.shortName || node.longName} · ${node.address}`,
          }))}
          onChoose={to}
        />
      )}
      {one && (
        <Typed
          label={WORDS.addressDevice}
          patient
          value={way.to as string}
          read={(text) =>
            Ipv4.safeParse(text.trim()).success ? { value: text.trim() } : { wrong: WORDS.fourNumbersFrom }
          }
          onChange={to}
        />
      )}
      <Choose
        label={WORDS.network}
        value={way.network ?? ''}
        choices={networkChoices(status.networks)}
        onChoose={(name) => onChange({ ...way, network: name || null } as Way)}
      />
      <Row gap={12} alignItems="flex-start">
        <Column flex={1}>
          <Typed
            label={WORDS.numberWire}
            patient
            numeric
            value={way.number as number}
            read={way.protocol === 'sacn' ? wholeNumber(1, 63999) : wholeNumber(0, 32767)}
            onChange={(number) => onChange({ ...way, number } as Way)}
          />
        </Column>
        {way.protocol === 'sacn' && (
          <Column flex={1}>
            <Typed
              label={WORDS.priorityAlone}
              patient
              numeric
              value={way.priority}
              read={wholeNumber(0, 200)}
              onChange={(priority) => onChange({ ...way, priority })}
            />
          </Column>
        )}
      </Row>
      <Quiet marginTop={-10}>{WORDS.onTheWire(numbersInWords(way))}</Quiet>
    </>
  );
}

function CableFields({ way, status, onChange }: Fields<Extract<Way, { protocol: 'serial' }>>) {
  const ports = status.serialPorts;
  return (
    <>
      <Choose
        label={WORDS.usbCable}
        value={way.path}
        choices={ports.map((port) => ({ value: port.path, name: `${port.name} · ${port.path.split('/').at(-1)}` }))}
        hint={ports.length === 0 ? WORDS.noCablePlugged : undefined}
        onChoose={(path) => onChange({ ...way, path })}
      />
      <Typed<string>
        label={WORDS.itsNameSystem}
        patient
        value={way.path}
        read={(text) =>
          text.trim().length >= 1 && text.trim().length <= 300 ? { value: text.trim() } : { wrong: WORDS.asSystemCalls }
        }
        onChange={(path) => onChange({ ...way, path })}
      />
      <Labelled
        label={WORDS.kind}
        hint={
          way.kind === 'framed'
            ? WORDS.hasChipIts
            : 'A bare converter; this computer makes the DMX timing. Most simple cables.'
        }
      >
        <Segments
          label={WORDS.kind}
          value={way.kind}
          choices={[
            { value: 'framed', name: WORDS.framedInterface },
            { value: 'plain', name: WORDS.plainAdapter },
          ]}
          onChoose={(kind) => onChange({ ...way, kind })}
        />
      </Labelled>
    </>
  );
}

/** The same universe by another way, keeping what carries over. */
function wayBy(protocol: Way['protocol'], row: OutputRow, status: Status): Way {
  const network = row.way.protocol === 'serial' ? null : row.way.network;
  switch (protocol) {
    case 'sacn':
      return { protocol, to: 'multicast', network, number: row.universe, priority: 100 };
    case 'artnet':
      return { protocol, to: 'broadcast', network, number: (row.universe - 1) & 0x7fff };
    case 'serial':
      return { protocol, kind: 'framed', path: status.serialPorts[0]?.path ?? '/dev/ttyUSB0' };
  }
}
