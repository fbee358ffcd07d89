// The lamps in this room: where they hang, where they listen, and which role they play.

import { useMemo, useState } from 'react';
import { useLocalSearchParams } from 'expo-router';
import { useMedia, View } from '@tamagui/core';
import { patchedFixtures } from '@hovlix/core/rig';
import { rigInUse, type Show } from '@hovlix/core/show';
import { useMay, useShow } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { Button, Column, PlaceHead, Quiet, Row, Words } from '../../ui/pieces';
import { ScrollArea } from '../../ui/ScrollArea';
import { Segments } from '../../ui/Segments';
import { AddLamps } from './AddLamps';
import { Direction } from './direction/Direction';
import { LampSheet } from './LampSheet';
import { ListTab } from './list/ListTab';
import { RigCheck } from './list/RigCheck';
import { namesOf } from './model';
import { RolesTab } from './roles/RolesTab';
import { PlanTab } from './plan/PlanTab';
import { Rigs } from './rigs/Rigs';
import { ByHand } from './types/ByHand';
import { Why } from './Why';
import { WORDS } from './words';

type Tab = 'plan' | 'list' | 'roles';
type Open =
  | { readonly sheet: 'add' | 'rigs' | 'check' }
  | { readonly sheet: 'lamp' | 'direction' | 'hand'; readonly lamp: string }
  | null;

export function RigPlace() {
  const show = useShow((one) => one);
  return show ? <Rig key={show.id} show={show} /> : null;
}

function Rig({ show }: { readonly show: Show }) {
  const { wide } = useMedia();
  const [tab, setTab] = useState<Tab>('plan');
  const { add } = useLocalSearchParams();
  const adding = useSession((session) => session.adding);
  const setAdding = useSession((session) => session.setAdding);
  const [opened, setOpened] = useState<Open>(typeof add === 'string' ? { sheet: 'add' } : null);
  const open: Open = opened ?? (adding ? { sheet: 'add' } : null);
  const setOpen = (next: Open) => {
    setAdding(false);
    setOpened(next);
  };
  const [wanted, setChosen] = useState<ReadonlySet<string>>(new Set());
  const rig = rigInUse(show);
  const patched = useMemo(() => patchedFixtures(rig, show.profiles), [rig, show.profiles]);
  const chosen = useMemo(
    () => new Set(patched.filter(({ fixture }) => wanted.has(fixture.id)).map(({ fixture }) => fixture.id as string)),
    [patched, wanted],
  );
  const one = chosen.size === 1 ? patched.find(({ fixture }) => chosen.has(fixture.id)) : undefined;
  const may = useMay('operator');
  const undirected = patched.filter(({ fixture, profile }) => profile.panRange > 0 && !fixture.directed);
  const choose = (ids: readonly string[]) => setChosen(new Set(ids));
  const change = (lamp: string) => setOpen({ sheet: 'lamp', lamp });
  const close = () => setOpen(null);
  const why = one && (
    <Why
      key={one.fixture.id}
      fixture={one.fixture}
      profile={one.profile}
      onChange={() => change(one.fixture.id)}
      onByHand={() => setOpen({ sheet: 'hand', lamp: one.fixture.id })}
      onClose={() => choose([])}
    />
  );
  const list = (
    <ListTab
      show={show}
      rig={rig}
      patched={patched}
      chosen={chosen}
      onChosen={choose}
      onChange={change}
      detail={wide ? undefined : why}
    />
  );
  const actions = may && (
    <>
      <Button kind="primary" onPress={() => setOpen({ sheet: 'add' })}>
        {WORDS.addLamps}
      </Button>
      <Button onPress={() => setOpen({ sheet: 'check' })} disabled={patched.length === 0}>
        {WORDS.check}
      </Button>
    </>
  );
  const plan = (
    <PlanTab
      show={show}
      rig={rig}
      patched={patched}
      chosen={chosen}
      onChosen={choose}
      onDirect={({ fixture }) => setOpen({ sheet: 'direction', lamp: fixture.id })}
      onChange={({ fixture }) => change(fixture.id)}
    >
      {actions}
    </PlanTab>
  );
  const roles = <RolesTab show={show} rig={rig} />;
  const inHand = open?.sheet === 'hand' ? patched.find(({ fixture }) => fixture.id === open.lamp) : undefined;
  const lampSheet = open?.sheet === 'lamp' ? patched.find(({ fixture }) => fixture.id === open.lamp) : undefined;
  return (
    <>
      <ScrollArea>
        <PlaceHead title={rig.name} onTitle={() => setOpen({ sheet: 'rigs' })} titleHint={WORDS.rigs}>
          <Segments
            label={WORDS.whatSeeRig}
            value={wide && tab === 'list' ? 'plan' : tab}
            choices={[
              { value: 'plan', name: wide ? WORDS.planAndList : WORDS.plan },
              ...(wide ? [] : [{ value: 'list' as const, name: WORDS.list }]),
              { value: 'roles', name: WORDS.roles },
            ]}
            onChoose={setTab}
          />
        </PlaceHead>
        {tab !== 'plan' && !(wide && tab === 'list') && (
          <Row paddingHorizontal={16} paddingBottom={12} gap={8}>
            {actions}
          </Row>
        )}
        {patched.length === 0 && (
          <Column paddingHorizontal={16} paddingBottom={12}>
            <Words>{WORDS.noLampsHere}</Words>
          </Column>
        )}
        {undirected.length > 0 && (
          <Row paddingHorizontal={16} paddingBottom={12} gap={12} justifyContent="space-between">
            <Quiet flexShrink={1}>{WORDS.notSetYet(namesOf(undirected.map(({ fixture }) => fixture)))}</Quiet>
            <Button onPress={() => setOpen({ sheet: 'direction', lamp: undirected[0]!.fixture.id })}>
              {WORDS.goOn}
            </Button>
          </Row>
        )}
        {tab === 'roles' ? (
          roles
        ) : wide ? (
          <Row alignItems="flex-start">
            <View flex={1} minWidth={0} {...{ position: 'sticky', top: 0 }}>
              {plan}
            </View>
            <View flex={1} minWidth={0}>
              {why}
              {list}
            </View>
          </Row>
        ) : tab === 'plan' ? (
          <>
            {plan}
            {why}
          </>
        ) : (
          list
        )}
      </ScrollArea>
      {open?.sheet === 'add' && (
        <AddLamps show={show} rig={rig} first={typeof add === 'string' ? add : null} onClose={close} />
      )}
      {open?.sheet === 'rigs' && <Rigs show={show} onClose={close} />}
      {open?.sheet === 'check' && <RigCheck patched={patched} onClose={close} onChange={change} />}
      {open?.sheet === 'direction' && (
        <Direction show={show} rig={rig} patched={patched} first={open.lamp} onClose={close} />
      )}
      {inHand && <ByHand lamp={inHand} onClose={close} />}
      {lampSheet && <LampSheet key={lampSheet.fixture.id} show={show} rig={rig} lamp={lampSheet} onClose={close} />}
    </>
  );
}
