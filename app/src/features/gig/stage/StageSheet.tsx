// What one needs around a gig: locking the screen, large letters, the pedals, what just happened.

import { useRouter, type Href } from 'expo-router';
import { View } from '@tamagui/core';
import ChevronRight from 'lucide-react-native/icons/chevron-right';
import { canFillScreen, fillScreen } from '../../../host/screen';
import { rigInUse } from '@hovlix/core/show';
import { useMay, useShow } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Typed } from '../../../ui/form';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { WORDS } from './words';

export function StageSheet({ onClose }: { readonly onClose: () => void }) {
  const router = useRouter();
  const may = useMay('operator');
  const rig = useShow((show) => rigInUse(show).name);
  const setLocked = useSession((session) => session.setLocked);
  const pin = useSession((session) => session.pin);
  const setPin = useSession((session) => session.setPin);
  const go = (to: Href) => {
    onClose();
    router.push(to);
  };
  return (
    <Sheet title={WORDS.onStage} onClose={onClose}>
      <Column gap={8}>
        <Row gap={8} flexWrap="wrap">
          <Button
            kind="primary"
            onPress={() => {
              setLocked(true);
              onClose();
            }}
          >
            {WORDS.lockTheScreen}
          </Button>
          {canFillScreen() && (
            <Button onPress={() => void fillScreen(true).then(onClose, onClose)}>{WORDS.fullScreen}</Button>
          )}
        </Row>
        <Quiet>{WORDS.lockedTakesNo}</Quiet>
        <Typed<string>
          label={WORDS.codeToUnlock}
          value={pin ?? ''}
          read={(text) =>
            /^(\d{4,8})?$/.test(text.trim()) ? { value: text.trim() } : { wrong: WORDS.fourEightFigures }
          }
          hint={pin === null ? WORDS.withoutCodeHolding : WORDS.askedAfterHolding}
          onChange={(code) => setPin(code === '' ? null : code)}
          numeric
        />
      </Column>
      <Column>
        {rig && <To name={WORDS.rig(rig)} hint={WORDS.tonightsLampsChoose} onPress={() => go('/rig')} />}
        <To name={WORDS.padsOnly} hint={WORDS.allPadsTouched} onPress={() => go('/gig/pads')} />
        <To name={WORDS.largeLetters} hint={WORDS.phoneAmp} onPress={() => go('/gig/large')} />
        {may && <To name={WORDS.pedalsAndMidi} hint={WORDS.whatEachSwitch} onPress={() => go('/gig/pedals')} />}
        <To name={WORDS.footController} hint={WORDS.switchesScreen} onPress={() => go('/gig/foot')} />
        <To name={WORDS.gigLog} hint={WORDS.whatJustHappened} onPress={() => go('/gig/log')} />
        <To name={WORDS.preflight} hint={WORDS.whatWouldGo} onPress={() => go('/gig/preflight')} />
      </Column>
    </Sheet>
  );
}

type ToProps = { readonly name: string; readonly hint: string; readonly onPress: () => void };

function To({ name, hint, onPress }: ToProps) {
  const palette = usePalette();
  return (
    <View
      render="button"
      aria-label={name}
      onPress={onPress}
      width="100%"
      flexDirection="row"
      alignItems="center"
      justifyContent="space-between"
      minHeight={52}
      padding={0}
      borderWidth={0}
      borderBottomWidth={1}
      borderColor="$line"
      backgroundColor="transparent"
      cursor="pointer"
    >
      <Column alignItems="flex-start">
        <Words fontWeight="600">{name}</Words>
        <Quiet>{hint}</Quiet>
      </Column>
      <ChevronRight size={20} color={palette.quiet} aria-hidden />
    </View>
  );
}
