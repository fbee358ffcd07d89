// Why a lamp stays dark: the five usual reasons, the likeliest first, each with its own test.

import { useState } from 'react';
import { numbersInWords, type OutputRow, type Status, type Way } from '@hovlix/core/connect';
import { useHovlix } from '../../host/hovlix';
import { Choose } from '../../ui/form';
import { Button, Column, Figures, Quiet, Row, Title, Words } from '../../ui/pieces';
import { networkChoices } from './model';
import { WORDS } from './words';

type Props = {
  readonly row: OutputRow;
  readonly status: Status;
  readonly address: number;
  readonly onFlash: (from: number, count: number) => void;
  readonly onLit: () => void;
  readonly onAgain: () => void;
};

const TITLES = [
  WORDS.anotherStartAddress,
  WORDS.anotherUniverseNumber,
  WORDS.anotherNetworkOr,
  WORDS.lampListensSomething,
  WORDS.theCable,
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
      <Figures>{WORDS.reasonOf(at + 1, TITLES.length)}</Figures>
      <Title render="h2" margin={0} fontSize={22}>
        {TITLES[at]}
      </Title>
      {at === 0 && <StartAddress {...props} />}
      {at === 1 && <UniverseNumber {...props} />}
      {at === 2 && <NetworkOrPort {...props} />}
      {at === 3 && <Words>{WORDS.lampsMenuChoose}</Words>}
      {at === 4 && <Cable {...props} />}
      <Row gap={8} flexWrap="wrap">
        <Button kind="primary" onPress={onLit}>
          {WORDS.nowItFlashes}
        </Button>
        {!last && <Button onPress={() => go(at + 1)}>{WORDS.stillDark}</Button>}
        {last && <Button onPress={onAgain}>{WORDS.chooseAnotherWay}</Button>}
        {at > 0 && (
          <Button kind="quiet" onPress={() => go(at - 1)}>
            {WORDS.back}
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
      <Words>{WORDS.flashAll512(address)}</Words>
      <Row>
        <Button onPress={() => onFlash(1, 512)}>{WORDS.flashAll512Channels}</Button>
      </Row>
    </>
  );
}

function UniverseNumber({ row }: Props) {
  const put = usePut(row);
  const { way } = row;
  if (way.protocol === 'serial') return <Words>{WORDS.cableCarriesSingle}</Words>;
  const least = way.protocol === 'sacn' ? 1 : 0;
  const to = (number: number) => put({ ...way, number } as Way);
  return (
    <>
      <Words>{WORDS.weSendSome(numbersInWords(way))}</Words>
      <Row gap={8} flexWrap="wrap">
        {way.number > least && <Button onPress={() => to(way.number - 1)}>{WORDS.tryNumber(way.number - 1)}</Button>}
        <Button onPress={() => to(way.number + 1)}>{WORDS.tryNumber(way.number + 1)}</Button>
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
        <Words>{WORDS.perhapsLightLeaves}</Words>
        <Choose
          label={WORDS.usbCable}
          value={way.path}
          choices={status.serialPorts.map((port) => ({ value: port.path, name: `${port.name} · ${port.path}` }))}
          onChoose={(path) => put({ ...way, path })}
        />
      </>
    );
  return (
    <>
      <Words>{WORDS.lampMustSame}</Words>
      <Choose
        label={WORDS.network}
        value={way.network ?? ''}
        choices={networkChoices(status.networks)}
        onChoose={(name) => put({ ...way, network: name || null } as Way)}
      />
      {status.networks
        .filter((face) => !face.internal)
        .map((face) => (
          <Quiet key={face.name}>{WORDS.computerMask(face.name, face.address, face.netmask)}</Quiet>
        ))}
    </>
  );
}

function Cable({ row }: Props) {
  const put = usePut(row);
  const { way } = row;
  if (way.protocol !== 'serial') return <Words>{WORDS.lightsBothEnds}</Words>;
  return (
    <>
      <Words>{WORDS.thereTwoKinds}</Words>
      <Row>
        <Button onPress={() => put({ ...way, kind: way.kind === 'plain' ? 'framed' : 'plain' })}>
          {way.kind === 'plain' ? WORDS.tryAsFramed : WORDS.tryAsPlain}
        </Button>
      </Row>
    </>
  );
}
