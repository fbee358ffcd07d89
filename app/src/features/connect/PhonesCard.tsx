// Opening Hovlix to phones: the address, the code, and who has joined.

import { lazy, Suspense } from 'react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Status } from '@hovlix/core/connect';
import { askHost, statusQuery } from '../../data/queries';
import { RIGHT_WORDS, type Right } from '@hovlix/core/live';
import { Card, State } from '../../ui/card';
import { Choose } from '../../ui/form';
import { Hold } from '../../ui/Hold';
import { Button, Column, Figures, Quiet, Row, Words } from '../../ui/pieces';

const Qr = lazy(() => import('./Qr'));

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
    <Card title="Phones">
      {phones.open ? (
        <State colour={phones.problem ? '$warn' : '$live'} word="Open to phones and tablets">
          {phones.problem && <Words color="$warn">{phones.problem}</Words>}
        </State>
      ) : (
        <State colour="$faint" word="Only this computer can open Hovlix" />
      )}
      {phones.open && host && phones.code && phones.addresses[0] && (
        <Row gap={16} alignItems="flex-start" flexWrap="wrap">
          <Suspense fallback={<Column width={140} height={140} />}>
            <Qr text={`${phones.addresses[0]}/#${phones.code}`} />
          </Suspense>
          <Column flex={1} minWidth={150} gap={4}>
            <Quiet>Scan it, or open</Quiet>
            {phones.addresses.map((address) => (
              <Figures key={address} fontSize={13} color="$text" testID="phone-address">
                {address}
              </Figures>
            ))}
            <Quiet marginTop={8}>and type this code. It works once.</Quiet>
            <Figures fontSize={30} lineHeight={38} fontWeight="600" color="$text" letterSpacing={1} testID="code">
              {phones.code.slice(0, 3)} {phones.code.slice(3)}
            </Figures>
            <Row>
              <Button onPress={() => renew.mutate()}>New code</Button>
            </Row>
            <Choose
              label="Whoever joins now is a"
              value={phones.grant}
              choices={RIGHT_CHOICES}
              onChoose={(may) => right.mutate({ path: '/api/phones/grant', may, method: 'POST' })}
            />
            <Quiet>It {RIGHT_WORDS[phones.grant]}.</Quiet>
          </Column>
        </Row>
      )}
      {phones.knocks.map((knock) => (
        <Column key={knock.id} gap={8} padding={14} borderRadius={12} backgroundColor="$well" role="alert">
          <Words fontWeight="600">“{knock.name}” asks to come in</Words>
          <Quiet>Its screen shows {knock.tag}. Let it in if that is what you see there.</Quiet>
          <Row gap={8}>
            <Button kind="primary" onPress={() => answer.mutate({ knock: knock.id, letIn: true })}>
              Let in
            </Button>
            <Button onPress={() => answer.mutate({ knock: knock.id, letIn: false })}>Not this one</Button>
          </Row>
        </Column>
      ))}
      {!host && <Quiet>The code is shown on the computer that runs the light, in Connect.</Quiet>}
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
                    label={`What ${device.name} may do`}
                    value={device.may}
                    choices={RIGHT_CHOICES}
                    onChoose={(may) => right.mutate({ path: `/api/phones/devices/${device.id}`, may, method: 'PUT' })}
                  />
                  <Hold onHeld={() => away.mutate(device.id)}>Hold to remove</Hold>
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
            {phones.open ? 'Close to phones' : 'Open to phones'}
          </Button>
        </Row>
      )}
      {(open.error ?? renew.error ?? away.error ?? right.error ?? answer.error) && (
        <Words color="$fault">That did not work: the server did not take it. Try again.</Words>
      )}
      <Quiet>
        At a venue bring an access point of your own: hundreds of guests on the same Wi-Fi are why remotes fail.
      </Quiet>
    </Card>
  );
}
