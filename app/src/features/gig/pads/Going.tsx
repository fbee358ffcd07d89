// Back and on through a bank.

import type { ReactNode } from 'react';
import ChevronLeft from 'lucide-react-native/icons/chevron-left';
import ChevronRight from 'lucide-react-native/icons/chevron-right';
import { padAfter } from '@hovlix/core/light';
import { goOn } from '../../../host/conduct/gestures';
import { useHovlix, usePlays } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { usePalette } from '../../../ui/palette';
import { Button, Row } from '../../../ui/pieces';
import type { BankProps } from './Pads';
import { WORDS } from './words';

type GoingProps = BankProps & { readonly at: string | null; readonly children?: ReactNode };

/** Back and on through the bank; what each brings is said to those who cannot see the pads. */
export function Going({ banks, bank, at, children }: GoingProps) {
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
        label={name === undefined ? WORDS.bankEndsHere(word) : `${word}: ${name}`}
        disabled={name === undefined}
        onPress={() => !goOn(app, way) && say(WORDS.bankEndsHereAlone)}
      >
        <Arrow size={24} color={palette.text} aria-hidden />
      </Button>
    );
  };
  return (
    <Row flexShrink={0} paddingRight={6} role="group" aria-label={WORDS.throughTheBank}>
      {button(-1, WORDS.previousLook)}
      {button(1, WORDS.nextLook)}
      {children}
    </Row>
  );
}
