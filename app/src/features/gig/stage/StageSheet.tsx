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
    <Sheet title="On stage" onClose={onClose}>
      <Column gap={8}>
        <Row gap={8} flexWrap="wrap">
          <Button kind="primary" onPress={() => { setLocked(true); onClose(); }}>
            Lock the screen
          </Button>
          {canFillScreen() && <Button onPress={() => void fillScreen(true).then(onClose, onClose)}>Full screen</Button>}
        </Row>
        <Quiet>Locked, it takes no touch and no key. Pedals and MIDI go on working.</Quiet>
        <Typed<string>
          label="Code to unlock"
          value={pin ?? ''}
          read={(text) => (/^(\d{4,8})?$/.test(text.trim()) ? { value: text.trim() } : { wrong: 'Four to eight figures, or nothing.' })}
          hint={pin === null ? 'Without a code, holding the button unlocks.' : 'Asked for after holding the button.'}
          onChange={(code) => setPin(code === '' ? null : code)}
          numeric
        />
      </Column>
      <Column>
        {rig && <To name={`Rig: ${rig}`} hint="tonight’s lamps: choose and check them" onPress={() => go('/rig')} />}
        <To name="Large letters" hint="for the phone on the amp" onPress={() => go('/gig/large')} />
        {may && <To name="Pedals and MIDI" hint="what each switch does" onPress={() => go('/gig/pedals')} />}
        <To name="Foot controller" hint="switches on this screen" onPress={() => go('/gig/foot')} />
        <To name="Gig log" hint="what just happened, in words" onPress={() => go('/gig/log')} />
        <To name="Preflight" hint="what would go wrong tonight" onPress={() => go('/gig/preflight')} />
      </Column>
    </Sheet>
  ); // prettier-ignore
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
