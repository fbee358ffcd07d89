// A locked screen takes no touch: a sleeve changes nothing. Held down, it asks for its code, if it has one.

import { useState } from 'react';
import { View } from '@tamagui/core';
import LockIcon from 'lucide-react-native/icons/lock';
import { useSession } from '../../host/session';
import { Hold } from '../../ui/Hold';
import { usePalette } from '../../ui/palette';
import { Button, Column, Figures, Row, Words, Grid } from '../../ui/pieces';
import { RAIL } from './Places';
import { WORDS } from './words';

/** How high it is where it lies below, in pixels. */
export const BAR = 58;
const BESIDE = { flexDirection: 'column', paddingHorizontal: 5, paddingVertical: 12, gap: 8 } as const;
/** Of a slim rail, which its five places fill: none is cut. */
const TWO_OF_FIVE = '40%';

/** @param over the places at the side, whose end it covers; without them it lies below, in BAR pixels. */
export function Lock({ over }: { readonly over: keyof typeof RAIL | null }) {
  const locked = useSession((session) => session.locked);
  const setLocked = useSession((session) => session.setLocked);
  const pin = useSession((session) => session.pin);
  const palette = usePalette();
  const [asking, setAsking] = useState(false);
  if (!locked) return null;
  const open = () => {
    setAsking(false);
    setLocked(false);
  };
  return (
    <View
      position="absolute"
      left={0}
      right={0}
      top={0}
      bottom={0}
      zIndex={60}
      justifyContent="flex-end"
      alignItems={over ? 'flex-start' : 'stretch'}
      data-testid="lock"
      style={{ touchAction: 'none' }}
    >
      {asking && pin !== null ? (
        <Code pin={pin} onRight={open} onStay={() => setAsking(false)} />
      ) : (
        <Row
          justifyContent="center"
          alignItems="center"
          gap={12}
          paddingVertical={7}
          minHeight={BAR}
          backgroundColor="$raised"
          borderTopWidth={1}
          borderColor="$line"
          {...(over ? { ...BESIDE, width: RAIL[over], minHeight: over === 'slim' ? TWO_OF_FIVE : 0 } : {})}
        >
          <LockIcon size={20} color={palette.text} aria-hidden />
          <Words fontWeight="600">{WORDS.locked}</Words>
          <Hold tall={over !== null} onHeld={() => (pin === null ? open() : setAsking(true))}>
            {WORDS.holdToUnlock}
          </Hold>
        </Row>
      )}
    </View>
  );
}

const FIGURES = ['1', '2', '3', '4', '5', '6', '7', '8', '9', 'Clear', '0'];

type CodeProps = { readonly pin: string; readonly onRight: () => void; readonly onStay: () => void };

function Code({ pin, onRight, onStay }: CodeProps) {
  const [typed, setTyped] = useState('');
  const press = (key: string) => {
    const next = key === 'Clear' ? '' : (typed + key).slice(-8);
    if (next.endsWith(pin)) return onRight();
    setTyped(next);
  };
  return (
    <Column
      backgroundColor="$raised"
      padding={16}
      gap={12}
      alignItems="center"
      borderTopWidth={1}
      borderRightWidth={1}
      borderColor="$line"
    >
      <Figures fontSize={26} lineHeight={32} color="$text" role="status" aria-label={WORDS.figuresTyped(typed.length)}>
        {'•'.repeat(typed.length) || WORDS.code}
      </Figures>
      <Grid gridTemplateColumns="repeat(3, 84px)" gap={10}>
        {FIGURES.map((key) => (
          <Button key={key} onPress={() => press(key)}>
            {key}
          </Button>
        ))}
      </Grid>
      <Button kind="quiet" onPress={onStay}>
        {WORDS.stayLocked}
      </Button>
    </Column>
  );
}
