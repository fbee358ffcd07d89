// The playing page: the pads of a bank, next and previous, and what is running with a way to stop each.

import { useState } from 'react';
import { banksOf, padAfter, type Bank } from '@hovlix/core/light';
import type { Show } from '@hovlix/core/show';
import { goOn } from '../../host/gestures';
import { useHovlix, useLive, usePlays } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { Chip } from '../../ui/Chip';
import { Button, Column, Row, Words } from '../../ui/pieces';
import { ScrollArea } from '../../ui/ScrollArea';
import { BankSheet } from './BankSheet';
import { Pads } from './Pads';
import { Running } from './Running';

export function Play({ show }: { readonly show: Show }) {
  const app = useHovlix();
  const place = useLive((live) => live.place);
  const [changing, setChanging] = useState(false);
  const banks = banksOf(show);
  const bank = banks.find(({ id }) => id === place.bank) ?? banks[0]!;
  return (
    <Column gap={12} paddingTop={16}>
      <Running />
      <ScrollArea sideways>
        <Row gap={6} paddingHorizontal={14} role="group" aria-label="Banks">
          {banks.map((one) => (
            <Chip
              key={one.id}
              small
              name={one.name}
              on={one.id === bank.id}
              onPress={() => app.conducting.act({ type: 'bank', bank: one.id })}
            />
          ))}
          <Chip small name="Change …" label="Change the banks" on={false} onPress={() => setChanging(true)} />
        </Row>
      </ScrollArea>
      <Going banks={banks} bank={bank} at={place.look} />
      <Pads banks={banks} bank={bank} />
      {changing && <BankSheet show={show} bank={bank} onClose={() => setChanging(false)} />}
    </Column>
  );
}

type GoingProps = { readonly banks: readonly Bank[]; readonly bank: Bank; readonly at: string | null };

/** Two large buttons that say what they bring. */
function Going({ banks, bank, at }: GoingProps) {
  const app = useHovlix();
  const plays = usePlays();
  const say = useSession((session) => session.say);
  const nameOf = (id: string | undefined) => plays.find((one) => one.id === id)?.name;
  const button = (way: 1 | -1, word: string, kind: 'primary' | 'plain') => {
    const to = padAfter(banks, bank, at, way);
    const name = nameOf(to?.pad.look);
    return (
      <Column flex={way > 0 ? 3 : 2} minWidth={0}>
        <Button
          kind={kind}
          label={name === undefined ? `${word}: the bank ends here` : `${word}: ${name}`}
          disabled={name === undefined}
          onPress={() => !goOn(app, way) && say('The bank ends here.')}
        >
          <Words numberOfLines={1} fontWeight="600" color={kind === 'primary' ? '$onDoing' : '$text'}>
            {name === undefined ? 'End' : way > 0 ? `Next: ${name}` : name}
          </Words>
        </Button>
      </Column>
    );
  };
  return (
    <Row gap={8} paddingHorizontal={14} role="group" aria-label="Through the bank">
      {button(-1, 'Previous', 'plain')}
      {button(1, 'Next', 'primary')}
    </Row>
  );
}
