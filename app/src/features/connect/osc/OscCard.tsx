// What is heard over OSC: where to send it, what came last and what it did, and the addresses that need no binding.

import { useState } from 'react';
import { NO_OSC, NO_PLAYER, type OscReport, type Status } from '@hovlix/core/connect';
import { useConnections, useHovlix } from '../../../host/hovlix';
import { Card, State } from '../../../ui/card';
import { Labelled, Typed, wholeNumber } from '../../../ui/form';
import { ButtonLink } from '../../../ui/links';
import { Button, Column, Figures, Quiet, Row } from '../../../ui/pieces';
import { clash, portBeside } from '../port';
import { KNOWN, messageText, OSC, whatCame } from './words';

export function OscCard({ status }: { readonly status: Status }) {
  const app = useHovlix();
  const osc = useConnections((state) => state.connections?.osc) ?? NO_OSC;
  const player = useConnections((state) => state.connections?.player) ?? NO_PLAYER;
  const set = (change: Partial<typeof osc>) => app.connections.make({ type: 'set-osc', osc: { ...osc, ...change } });
  return (
    <Card
      title={OSC.title}
      action={
        <Button label={OSC.listen} pressed={osc.on} onPress={() => set({ on: !osc.on })}>
          {osc.on ? OSC.listening : OSC.listenShort}
        </Button>
      }
    >
      {!osc.on && <Quiet>{OSC.off}</Quiet>}
      {osc.on && status.osc && (
        <>
          <Came report={status.osc} clashes={clash(player, osc.port)} />
          <Row>
            <ButtonLink href="/gig/pedals" kind="plain">
              {OSC.bind}
            </ButtonLink>
          </Row>
          <Known />
          <SendTo networks={status.networks} port={osc.port} />
          <Typed
            label={OSC.port}
            patient
            hint={OSC.portHint}
            numeric
            value={osc.port}
            read={portBeside(player, OSC.portOfPlayer)}
            onChange={(port) => set({ port })}
          />
          <Typed
            label={OSC.answersAt}
            patient
            hint={OSC.answersHint}
            numeric
            value={osc.answersAt === null ? '' : String(osc.answersAt)}
            read={readAnswers}
            onChange={(text) => set({ answersAt: text === '' ? null : Number(text) })}
          />
        </>
      )}
    </Card>
  );
}

/** Empty: nobody is told. */
function readAnswers(text: string): { readonly value: string } | { readonly wrong: string } {
  if (text.trim() === '') return { value: '' };
  const read = wholeNumber(1, 65535)(text);
  return 'value' in read ? { value: String(read.value) } : read;
}

type CameProps = {
  readonly report: OscReport;
  /** The DJ player is listened to at the same port. */
  readonly clashes: boolean;
};

function Came({ report: { last, bad, lastBad, deaf }, clashes }: CameProps) {
  if (deaf !== null) return <State colour="$fault" word={clashes ? OSC.portOfPlayer : deaf} />;
  return (
    <Column gap={8} role="status" testID="osc-came">
      {last === null ? (
        <State colour="$faint" word={OSC.silent} />
      ) : (
        <State colour={last.by === 'nobody' ? '$warn' : '$live'} word={messageText(last)}>
          <Quiet>{whatCame(last)}</Quiet>
        </State>
      )}
      {bad > 0 && <Quiet>{OSC.bad(bad, lastBad)}</Quiet>}
    </Column>
  );
}

type SendToProps = { readonly networks: Status['networks']; readonly port: number };

function SendTo({ networks, port }: SendToProps) {
  const outside = networks.filter(({ internal }) => !internal);
  return (
    <Labelled label={OSC.sendTo} hint={outside.length > 0 ? OSC.everyone : OSC.onlyHere}>
      {(outside.length > 0 ? outside : networks).map(({ name, address }) => (
        <Figures key={`${name} ${address}`} color="$text">
          {address}:{port}
        </Figures>
      ))}
    </Labelled>
  );
}

function Known() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Row>
        <Button pressed={open} onPress={() => setOpen(!open)}>
          {open ? OSC.hideWords : OSC.showWords}
        </Button>
      </Row>
      {open && (
        <Column role="list" aria-label={OSC.words} gap={8}>
          {KNOWN.map(([address, does]) => (
            <Column key={address} role="listitem">
              <Figures color="$text">{address}</Figures>
              <Quiet>{does}</Quiet>
            </Column>
          ))}
        </Column>
      )}
    </>
  );
}
