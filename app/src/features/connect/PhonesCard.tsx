// Opening Hovlix to phones: the address, the code, and who has joined.

import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Status } from '@hovlix/core/connect';
import { askHost, statusQuery } from '../../data/queries';
import { RIGHT_WORDS, type Right } from '@hovlix/core/live';
import { Card, State } from '../../ui/card';
import { fetched } from '../../ui/fetched';
import { Choose } from '../../ui/form';
import { Hold } from '../../ui/Hold';
import { Button, Column, Figures, Quiet, Row, Words } from '../../ui/pieces';
import { WORDS } from './words';

const Qr = fetched(async () => (await import('./Qr')).Qr, { until: () => <Column width={140} height={140} /> });

const RIGHT_CHOICES: readonly { readonly value: Right; readonly name: string }[] = [
  { value: 'operator', name: 'operator' },
  { value: 'player', name: 'player' },
  { value: 'viewer', name: 'viewer' },
];

export function PhonesCard({ status }: { readonly status: Status }) {
  const { phones, host } = status;
  const queries = useQueryClient();
  const done = () => queries.invalidateQueries({ queryKey: statusQuery(true).queryKey });
  const open = useMutation({
    mutationFn: (on: boolean) => askHost('POST', '/api/phones', { open: on }),
    onSettled: done,
  });
  const renew = useMutation({ mutationFn: () => askHost('POST', '/api/phones/code'), onSettled: done });
  const right = useMutation({
    mutationFn: ({ path, may, method }: { path: string; may: Right; method: 'POST' | 'PUT' }) =>
      askHost(method, path, { may }),
    onSettled: done,
  });
  const answer = useMutation({
    mutationFn: ({ knock, letIn }: { knock: string; letIn: boolean }) =>
      askHost('POST', `/api/phones/knocks/${knock}`, { letIn }),
    onSettled: done,
  });
  const away = useMutation({
    mutationFn: (device: string) => askHost('DELETE', `/api/phones/devices/${device}`),
    onSettled: done,
  });
  return (
    <Card title={WORDS.phones}>
      {phones.open ? (
        <State colour={phones.problem ? '$warn' : '$live'} word={WORDS.openPhonesTablets}>
          {phones.problem && <Words color="$warn">{phones.problem}</Words>}
        </State>
      ) : (
        <State colour="$faint" word={WORDS.onlyComputerCan} />
      )}
      {phones.open && host && phones.code && phones.addresses[0] && (
        <Row gap={16} alignItems="flex-start" flexWrap="wrap">
          <Qr text={`${phones.addresses[0]}/#${phones.code}`} />
          <Column flex={1} minWidth={150} gap={4}>
            <Quiet>{WORDS.scanOrOpen}</Quiet>
            {phones.addresses.map((address) => (
              <Figures key={address} fontSize={13} color="$text" testID="phone-address">
                {address}
              </Figures>
            ))}
            <Quiet marginTop={8}>{WORDS.typeCodeWorks}</Quiet>
            <Figures fontSize={30} lineHeight={38} fontWeight="600" color="$text" letterSpacing={1} testID="code">
              {phones.code.slice(0, 3)} {phones.code.slice(3)}
            </Figures>
            <Row>
              <Button onPress={() => renew.mutate()}>{WORDS.newCode}</Button>
            </Row>
            <Choose
              label={WORDS.whoeverJoinsNow}
              value={phones.grant}
              choices={RIGHT_CHOICES}
              onChoose={(may) => right.mutate({ path: '/api/phones/grant', may, method: 'POST' })}
            />
            <Quiet>{WORDS.it(RIGHT_WORDS[phones.grant])}</Quiet>
          </Column>
        </Row>
      )}
      {phones.knocks.map((knock) => (
        <Column key={knock.id} gap={8} padding={14} borderRadius={12} backgroundColor="$well" role="alert">
          <Words fontWeight="600">{WORDS.asksCome(knock.name)}</Words>
          <Quiet>{WORDS.itsScreenShows(knock.tag)}</Quiet>
          <Row gap={8}>
            <Button kind="primary" onPress={() => answer.mutate({ knock: knock.id, letIn: true })}>
              {WORDS.letIn}
            </Button>
            <Button onPress={() => answer.mutate({ knock: knock.id, letIn: false })}>{WORDS.notThisOne}</Button>
          </Row>
        </Column>
      ))}
      {!host && <Quiet>{WORDS.codeShownComputer}</Quiet>}
      {phones.devices.length > 0 && (
        <Column gap={8}>
          {phones.devices.map((device) => (
            <Row key={device.id} gap={12} justifyContent="space-between">
              <State colour={device.screens > 0 ? '$live' : '$faint'} word={device.name}>
                <Quiet>{device.screens > 0 ? 'is here' : 'has joined before'}</Quiet>
              </State>
              {host ? (
                <Row gap={8} flexWrap="wrap" justifyContent="flex-end">
                  <Choose
                    label={WORDS.whatMayDo(device.name)}
                    value={device.may}
                    choices={RIGHT_CHOICES}
                    onChoose={(may) => right.mutate({ path: `/api/phones/devices/${device.id}`, may, method: 'PUT' })}
                  />
                  <Hold onHeld={() => away.mutate(device.id)}>{WORDS.holdToRemove}</Hold>
                </Row>
              ) : (
                <Quiet>{device.may}</Quiet>
              )}
            </Row>
          ))}
        </Column>
      )}
      {host && (
        <Row>
          <Button kind={phones.open ? 'plain' : 'primary'} onPress={() => open.mutate(!phones.open)}>
            {phones.open ? WORDS.closeToPhones : WORDS.openToPhones}
          </Button>
        </Row>
      )}
      {(open.error ?? renew.error ?? away.error ?? right.error ?? answer.error) && (
        <Words color="$fault">{WORDS.didNotWork}</Words>
      )}
      <Quiet>{WORDS.venueBringAccess}</Quiet>
    </Card>
  );
}
