// Where DMX goes, whether it arrives, and who may come in.

import { useState } from 'react';
import { Link } from 'expo-router';
import { useQuery } from '@tanstack/react-query';
import { useMedia, View } from '@tamagui/core';
import { statusQuery } from '../../data/queries';
import { useLink, useLive } from '../../host/hovlix';
import { capital } from '../../ui/capital';
import { Card, State } from '../../ui/card';
import { MasterOutput } from '../../ui/MasterOutput';
import { usePalette } from '../../ui/palette';
import { Column, PlaceHead, Quiet, Row, Words } from '../../ui/pieces';
import { ScrollArea } from '../../ui/ScrollArea';
import type { Health } from '../stage/model';
import { useHealth } from '../stage/use-health';
import { ArrivingCard } from './ArrivingCard';
import { ConductorCard } from './ConductorCard';
import { InputsCard, InputSheet } from './InputsCard';
import { NetworkCard } from './NetworkCard';
import { OutputsCard } from './OutputsCard';
import { OutputSheet } from './OutputSheet';
import { PedalsCard } from './PedalsCard';
import { OscCard } from './osc/OscCard';
import { PhonesCard } from './PhonesCard';
import { PlayerCard } from './player/PlayerCard';
import { TimetableCard } from './timetable/TimetableCard';
import { WORDS } from './words';

type Editing = { readonly what: 'output' | 'input'; readonly id: string } | null;

export function ConnectPlace() {
  const { wide } = useMedia();
  const conductor = useLink((link) => link.conductor);
  const [editing, setEditing] = useState<Editing>(null);
  const { data: status, dataUpdatedAt } = useQuery(statusQuery(conductor === 'server'));
  const close = () => setEditing(null);
  const first = (
    <>
      {status && <Sending />}
      {status && <FirstLight />}
      {status && <OutputsCard status={status} at={dataUpdatedAt} onEdit={(id) => setEditing({ what: 'output', id })} />}
      {status && <ArrivingCard status={status} />}
    </>
  );
  const second = (
    <>
      <ConductorCard screens={status?.screens} />
      {status && <PhonesCard status={status} />}
      <PedalsCard />
      {status && <PlayerCard status={status} />}
      {status && <OscCard status={status} />}
      {status && <TimetableCard status={status} />}
      {status && <InputsCard status={status} onEdit={(id) => setEditing({ what: 'input', id })} />}
      {status && <NetworkCard status={status} />}
    </>
  );
  return (
    <>
      <ScrollArea>
        <PlaceHead title={WORDS.connect} />
        {wide ? (
          <Row paddingHorizontal={12} gap={12} alignItems="flex-start">
            <Column flex={1} gap={12} minWidth={0}>
              {first}
            </Column>
            <Column flex={1} gap={12} minWidth={0}>
              {second}
            </Column>
          </Row>
        ) : (
          <Column paddingHorizontal={12} gap={12}>
            {first}
            {second}
          </Column>
        )}
      </ScrollArea>
      {status && editing?.what === 'output' && (
        <OutputSheet
          key={editing.id}
          output={editing.id}
          status={status}
          onClose={close}
          onEdit={(id) => setEditing({ what: 'output', id })}
        />
      )}
      {editing?.what === 'input' && <InputSheet key={editing.id} input={editing.id} onClose={close} />}
    </>
  );
}

/** What is said below the state of the output. */
const MORE: Readonly<Partial<Record<Health['state'], string>>> = {
  off: WORDS.lampsKeepTheir,
  none: WORDS.addOneBelow,
  failing: WORDS.eachSaysWhy,
  silent: WORDS.eachSaysWhy,
  sending: WORDS.lampsListenUs,
};

/** The master output: apart from blackout, and in words that cannot be taken for it. It says no more than what arrives. */
function Sending() {
  const { state, colour, text } = useHealth();
  const dark = useLive((live) => live.blackout.on);
  const word = state === 'sending' ? WORDS.weAreSending : state === 'off' ? WORDS.weSendNothing : capital(text);
  const more = state === 'sending' && dark ? WORDS.blackoutSoWhat : MORE[state];
  return (
    <Card title={WORDS.masterOutput} action={<MasterOutput />}>
      <State colour={colour} word={word}>
        {more && <Quiet>{more}</Quiet>}
      </State>
    </Card>
  );
}

function FirstLight() {
  const palette = usePalette();
  return (
    <Link
      href="/connect/first"
      style={{
        display: 'flex',
        flexDirection: 'row',
        alignItems: 'center',
        gap: 14,
        padding: 16,
        borderRadius: 14,
        textDecorationLine: 'none',
        backgroundColor: palette.doing,
      }}
    >
      <View width={34} height={34} alignItems="center" justifyContent="center">
        <Lamp colour={palette.onDoing} />
      </View>
      <Column flex={1}>
        <Words fontWeight="600" fontSize={17} color="$onDoing">
          {WORDS.makeOneLamp}
        </Words>
        <Words fontSize={13} color="$onDoing">
          {WORDS.minuteFromCable}
        </Words>
      </Column>
    </Link>
  );
}

/** A lamp and what comes out of it. */
function Lamp({ colour }: { readonly colour: string }) {
  return (
    <svg
      width="34"
      height="34"
      viewBox="0 0 34 34"
      fill="none"
      stroke={colour}
      strokeWidth="2.2"
      strokeLinecap="round"
      aria-hidden
    >
      <path d="M11 4h12l2.500 9h-17z" strokeLinejoin="round" />
      <path d="M12 18l-4 11M17 18v12M22 18l4 11" />
    </svg>
  );
}
