// The guided first minute: what have you got, a test, did a lamp light up, and if not the five usual reasons in order.

import { useEffect, useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { View } from '@tamagui/core';
import { rowInWords, type OutputRow, type Status } from '@hovlix/core/connect';
import { id, seconds, universe } from '@hovlix/core/units';
import { walkedChannel } from '@hovlix/core/picture';
import { statusQuery } from '../../data/queries';
import { freshId } from '../../host/fresh-id';
import { useHovlix, useLink, useConnections, useLive } from '../../host/hovlix';
import { State } from '../../ui/card';
import { Typed, wholeNumber } from '../../ui/form';
import { ButtonLink } from '../../ui/links';
import { Button, Column, Figures, Quiet, Row, Title, Words } from '../../ui/pieces';
import { ScrollArea } from '../../ui/ScrollArea';
import { PageHead } from './PageHead';
import { firstChoices, stateOf, type FirstChoice } from './model';
import { Reasons } from './Reasons';
import { WORDS } from './words';

/** The first lamp hangs on the first universe: one less thing to get wrong. */
const UNIVERSE = 1;
/** Channels flashed from the start address on: more than most lamps have. */
const SPAN = 16;
/** A forgotten test ends by itself. */
const TEST_FOR = seconds(120);

type Step = 'way' | 'test' | 'why' | 'lit';

export function FirstLamp() {
  const app = useHovlix();
  const served = useLink((link) => link.conductor) === 'server';
  const status = useQuery(statusQuery(served)).data;
  const rows = useConnections((state) => state.connections?.outputs);
  const [step, setStep] = useState<Step>('way');
  const [output, setOutput] = useState<string | null>(null);
  const [address, setAddress] = useState(1);
  const row = rows?.find((one) => one.id === output);

  const flash = (from: number, count: number) =>
    app.conducting.act({ type: 'flash-channels', universe: UNIVERSE, from, count, length: TEST_FOR });
  // Whoever leaves, or closes the page, takes the test along.
  useEffect(() => {
    const end = () => app.conducting.act({ type: 'end-test' });
    window.addEventListener('pagehide', end);
    return () => {
      window.removeEventListener('pagehide', end);
      end();
    };
  }, [app]);

  const take = (choice: FirstChoice) => {
    const way = JSON.stringify(choice.way);
    const known = rows?.find((one) => one.universe === UNIVERSE && JSON.stringify(one.way) === way);
    const made: OutputRow = known
      ? { ...known, on: true }
      : { id: id<'Output'>(freshId()), universe: universe(UNIVERSE), on: true, delayMs: 0, way: choice.way };
    app.connections.make({ type: 'put-output', row: made });
    if (!app.conducting.store.getState().live.sending) app.conducting.act({ type: 'sending', on: true });
    setOutput(made.id);
    setStep('test');
    flash(address, SPAN);
  };

  return (
    <ScrollArea>
      <PageHead title={WORDS.oneLamp} />
      <Column paddingHorizontal={16} gap={16} paddingBottom={16} maxWidth={640}>
        {!served && (
          <State colour="$warn" word={WORDS.webPageAlone}>
            <Quiet>{WORDS.startHovlixComputer}</Quiet>
          </State>
        )}
        {served && status && step === 'way' && <Ways status={status} onTake={take} />}
        {row && status && step !== 'way' && <Going row={row} status={status} />}
        {row && step === 'test' && (
          <>
            <Words>{WORDS.setLampDmx(address, address, Math.min(512, address + SPAN - 1))}</Words>
            <Typed
              label={WORDS.startAddressLamp}
              numeric
              value={address}
              read={wholeNumber(1, 512)}
              onChange={(next) => {
                setAddress(next);
                flash(next, SPAN);
              }}
            />
            <Question onYes={() => setStep('lit')} onNo={() => setStep('why')} />
          </>
        )}
        {row && status && step === 'why' && (
          <Reasons
            row={row}
            status={status}
            address={address}
            onFlash={flash}
            onLit={() => setStep('lit')}
            onAgain={() => setStep('way')}
          />
        )}
        {row && step === 'lit' && <Lit row={row} />}
      </Column>
    </ScrollArea>
  );
}

function Ways({ status, onTake }: { readonly status: Status; readonly onTake: (choice: FirstChoice) => void }) {
  return (
    <>
      <Words>{WORDS.howYourLamp}</Words>
      <Column gap={8}>
        {firstChoices(status, UNIVERSE).map((choice) => (
          <View
            key={choice.key}
            render="button"
            onPress={() => onTake(choice)}
            padding={16}
            gap={2}
            borderRadius={14}
            borderWidth={0}
            backgroundColor="$raised"
            cursor="pointer"
            alignItems="flex-start"
            pressStyle={{ opacity: 0.8 }}
          >
            <Words fontWeight="600" fontSize={17} textAlign="left">
              {choice.title}
            </Words>
            <Quiet textAlign="left">{choice.detail}</Quiet>
          </View>
        ))}
      </Column>
    </>
  );
}

/** Does it leave the computer at all? Everything else is further down the cable. */
function Going({ row, status }: { readonly row: OutputRow; readonly status: Status }) {
  const report = status.output?.rows.find((one) => one.id === row.id);
  const { word, tone, why } = stateOf(row, report);
  const dark = useLive((live) => live.blackout.on);
  return (
    <Column padding={16} borderRadius={14} backgroundColor="$raised" gap={8}>
      <State colour={tone} word={`${rowInWords(row)}: ${word.toLowerCase()}`}>
        {why && <Quiet>{why}</Quiet>}
        {report && <Quiet>{WORDS.packetsSecondLeave(Math.round(report.packetsPerSecond))}</Quiet>}
      </State>
      {dark && <Words color="$warn">{WORDS.blackoutSoTest}</Words>}
    </Column>
  );
}

function Question({ onYes, onNo }: { readonly onYes: () => void; readonly onNo: () => void }) {
  return (
    <Column gap={12}>
      <Title render="h2" margin={0} fontSize={22}>
        {WORDS.didLampLight}
      </Title>
      <Row gap={12}>
        <Button kind="primary" onPress={onYes}>
          {WORDS.yesItFlashes}
        </Button>
        <Button onPress={onNo}>{WORDS.no}</Button>
      </Row>
    </Column>
  );
}

function Lit({ row }: { readonly row: OutputRow }) {
  const app = useHovlix();
  const walking = useLive((live) => (live.test?.kind === 'walk' ? live.test : null));
  const [channel, setChannel] = useState(1);
  useEffect(() => {
    if (!walking) return;
    const timer = setInterval(() => setChannel(walkedChannel(walking, app.conducting.now())), 50);
    return () => clearInterval(timer);
  }, [walking, app]);
  const walk = (from: number, step: number) =>
    app.conducting.act({ type: 'walk-channels', universe: UNIVERSE, from, to: 512, step: seconds(step) });
  return (
    <>
      <Title render="h2" margin={0} fontSize={22}>
        {WORDS.yourLampAnswers}
      </Title>
      <Words>{WORDS.keptEverySong(rowInWords(row))}</Words>
      <Row gap={8} flexWrap="wrap">
        <Button onPress={() => app.conducting.act({ type: 'end-test' })}>{WORDS.stopFlashing}</Button>
        {walking ? (
          <Button onPress={() => walk(channel, 0)}>{WORDS.stayOn(channel)}</Button>
        ) : (
          <Button onPress={() => walk(1, 0.8)}>{WORDS.walkThroughIts}</Button>
        )}
      </Row>
      {walking && (
        <Words>
          {WORDS.channel}{' '}
          <Figures fontSize={22} color="$text" testID="walked">
            {channel}
          </Figures>{' '}
          {WORDS.fullFirstDoes}
        </Words>
      )}
      <ButtonLink href="/rig" kind="primary">
        {WORDS.rig}
      </ButtonLink>
    </>
  );
}
