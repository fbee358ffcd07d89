// Why a lamp stays dark: the five usual reasons, the likeliest first, each with its own test.

import { useState } from 'react';
import { numbersInWords, type OutputRow, type Status, type Way } from '@hovlix/core/connect';
import { useHovlix } from '../../host/hovlix';
import { Choose } from '../../ui/form';
import { Button, Column, Figures, Quiet, Row, Title, Words } from '../../ui/pieces';
import { networkChoices } from './model';

type Props = {
  readonly row: OutputRow;
  readonly status: Status;
  readonly address: number;
  readonly onFlash: (from: number, count: number) => void;
  readonly onLit: () => void;
  readonly onAgain: () => void;
};

const TITLES = [
  'Another start address',
  'Another universe number',
  'Another network, or mask',
  'The lamp listens to something else',
  'The cable',
] as const;

export function Reasons(props: Props) {
  const [at, setAt] = useState(0);
  const { onFlash, onLit, onAgain } = props;
  const last = at === TITLES.length - 1;
  const go = (next: number) => {
    setAt(next);
    onFlash(1, 512);
  };
  return (
    <Column gap={14}>
      <Figures>
        Reason {at + 1} of {TITLES.length}
      </Figures>
      <Title render="h2" margin={0} fontSize={22}>
        {TITLES[at]}
      </Title>
      {at === 0 && <StartAddress {...props} />}
      {at === 1 && <UniverseNumber {...props} />}
      {at === 2 && <NetworkOrPort {...props} />}
      {at === 3 && (
        <Words>
          In the lamp’s menu choose DMX. Sound, auto, master/slave and wireless modes ignore the cable. Some lamps have
          several DMX modes: in each of them it will flash now.
        </Words>
      )}
      {at === 4 && <Cable {...props} />}
      <Row gap={8} flexWrap="wrap">
        <Button kind="primary" onPress={onLit}>
          Now it flashes
        </Button>
        {!last && <Button onPress={() => go(at + 1)}>Still dark</Button>}
        {last && <Button onPress={onAgain}>Choose another way</Button>}
        {at > 0 && (
          <Button kind="quiet" onPress={() => go(at - 1)}>
            Back
          </Button>
        )}
      </Row>
    </Column>
  );
}

function usePut(row: OutputRow) {
  const app = useHovlix();
  return (way: Way) => app.connections.make({ type: 'put-output', row: { ...row, way } as OutputRow });
}

function StartAddress({ address, onFlash }: Props) {
  return (
    <>
      <Words>
        Flash all 512 channels. If the lamp lights up now, its start address is not {address}: it is in its menu or on
        its little switches.
      </Words>
      <Row>
        <Button onPress={() => onFlash(1, 512)}>Flash all 512 channels</Button>
      </Row>
    </>
  );
}

function UniverseNumber({ row }: Props) {
  const put = usePut(row);
  const { way } = row;
  if (way.protocol === 'serial') return <Words>A cable carries a single universe, so this cannot be it. Go on.</Words>;
  const least = way.protocol === 'sacn' ? 1 : 0;
  const to = (number: number) => put({ ...way, number } as Way);
  return (
    <>
      <Words>
        We send {numbersInWords(way)}. Some makers count from 0, others from 1. Compare with the menu of the node or
        lamp, or try its neighbours.
      </Words>
      <Row gap={8} flexWrap="wrap">
        {way.number > least && <Button onPress={() => to(way.number - 1)}>{`Try number ${way.number - 1}`}</Button>}
        <Button onPress={() => to(way.number + 1)}>{`Try number ${way.number + 1}`}</Button>
      </Row>
    </>
  );
}

function NetworkOrPort({ row, status }: Props) {
  const put = usePut(row);
  const { way } = row;
  if (way.protocol === 'serial')
    return (
      <>
        <Words>Perhaps light leaves through another cable. These are plugged in:</Words>
        <Choose
          label="USB cable"
          value={way.path}
          choices={status.serialPorts.map((port) => ({ value: port.path, name: `${port.name} · ${port.path}` }))}
          onChoose={(path) => put({ ...way, path })}
        />
      </>
    );
  return (
    <>
      <Words>
        The lamp must be in the same network as this computer: with the mask 255.255.255.0 the first three numbers of
        both addresses are equal, with 255.0.0.0 the first.
      </Words>
      <Choose
        label="Network"
        value={way.network ?? ''}
        choices={networkChoices(status.networks)}
        onChoose={(name) => put({ ...way, network: name || null } as Way)}
      />
      {status.networks
        .filter((face) => !face.internal)
        .map((face) => (
          <Quiet key={face.name}>
            {face.name}: this computer is {face.address}, mask {face.netmask}
          </Quiet>
        ))}
    </>
  );
}

function Cable({ row }: Props) {
  const put = usePut(row);
  const { way } = row;
  if (way.protocol !== 'serial')
    return (
      <Words>
        The lights at both ends of the network cable must blink. Then the DMX cable: from “out” at the node to “in” at
        the lamp, and try another one. A microphone cable often fails here.
      </Words>
    );
  return (
    <>
      <Words>
        There are two kinds of USB cable for DMX, and they are not told apart by looking. Try the other kind. Then try
        another DMX cable: a microphone cable often fails here.
      </Words>
      <Row>
        <Button onPress={() => put({ ...way, kind: way.kind === 'plain' ? 'framed' : 'plain' })}>
          {way.kind === 'plain' ? 'Try as a framed interface' : 'Try as a plain adapter'}
        </Button>
      </Row>
    </>
  );
}
