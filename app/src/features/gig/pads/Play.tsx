// The playing page: the pads of a bank, next and previous, and what is running with a way to stop each.

import { useState } from 'react';
import { View } from '@tamagui/core';
import ChevronLeft from 'lucide-react-native/icons/chevron-left';
import ChevronRight from 'lucide-react-native/icons/chevron-right';
import { banksOf, padAfter, type Bank } from '@hovlix/core/light';
import type { Show } from '@hovlix/core/show';
import { goOn } from '../../../host/conduct/gestures';
import { useHovlix, useLive, usePlays } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Chip } from '../../../ui/Chip';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Row } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { BankSheet } from './BankSheet';
import { Pads } from './Pads';
import { RunningChip } from './Running';

export function Play({ show }: { readonly show: Show }) {
  const app = useHovlix();
  const place = useLive((live) => live.place);
  const [changing, setChanging] = useState(false);
  const banks = banksOf(show);
  const bank = banks.find(({ id }) => id === place.bank) ?? banks[0]!;
  return (
    <Column gap={8}>
      <Row>
        <View flex={1} minWidth={0}>
          <ScrollArea sideways>
            <Row gap={6} paddingHorizontal={14} role="group" aria-label="Banks">
              <RunningChip />
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
        </View>
        <Going banks={banks} bank={bank} at={place.look} />
      </Row>
      <Pads banks={banks} bank={bank} />
      {changing && <BankSheet show={show} bank={bank} onClose={() => setChanging(false)} />}
    </Column>
  );
}

type GoingProps = { readonly banks: readonly Bank[]; readonly bank: Bank; readonly at: string | null };

/** Back and on through the bank; what each brings is said to those who cannot see the pads. */
function Going({ banks, bank, at }: GoingProps) {
  const app = useHovlix();
  const palette = usePalette();
  const plays = usePlays();
  const say = useSession((session) => session.say);
  const nameOf = (id: string | undefined) => plays.find((one) => one.id === id)?.name;
  const button = (way: 1 | -1, word: string) => {
    const name = nameOf(padAfter(banks, bank, at, way)?.pad.look);
    const Arrow = way > 0 ? ChevronRight : ChevronLeft;
    return (
      <Button
        kind="quiet"
        label={name === undefined ? `${word}: the bank ends here` : `${word}: ${name}`}
        disabled={name === undefined}
        onPress={() => !goOn(app, way) && say('The bank ends here.')}
      >
        <Arrow size={24} color={palette.text} aria-hidden />
      </Button>
    );
  };
  return (
    <Row flexShrink={0} paddingRight={6} role="group" aria-label="Through the bank">
      {button(-1, 'Previous look')}
      {button(1, 'Next look')}
    </Row>
  );
}
