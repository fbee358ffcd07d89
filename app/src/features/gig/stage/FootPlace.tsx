// A foot controller on the screen: its switches take the same way as those on the floor.

import { useEffect } from 'react';
import { useRouter } from 'expo-router';
import { Text, View } from '@tamagui/core';
import X from 'lucide-react-native/icons/x';
import { useStore } from 'zustand';
import type { SwitchControl } from '@hovlix/core/gig';
import { whenOf } from '../../../host/conduct/local-clock';
import { useHovlix, useShow } from '../../../host/hovlix';
import { keepAwake } from '../../../host/screen';
import { useHeld } from '../../../ui/held';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Quiet, Row, Title, Words, Grid } from '../../../ui/pieces';
import { Trouble } from './Trouble';
import { footSwitches, gestureWords } from '../pedal/model';
import { useHappened } from '../pedal/use-happened';
import { useMoment } from '../use-moment';
import { WORDS } from './words';

export function FootPlace() {
  const router = useRouter();
  const palette = usePalette();
  const show = useShow((one) => one);
  const happened = useHappened();
  useEffect(() => keepAwake(), []);
  if (!show) return null;
  const switches = footSwitches(show);
  return (
    <Column flex={1} height="100%" backgroundColor="$ground" padding={14} gap={12}>
      <Row justifyContent="space-between">
        <Title render="h1" margin={0} fontSize={22}>
          {WORDS.footController}
        </Title>
        <Button label={WORDS.close} kind="quiet" onPress={() => router.push('/gig')}>
          <X size={24} color={palette.text} aria-hidden />
        </Button>
      </Row>
      <Trouble />
      <Row minHeight={40} role="status" testID="happened">
        <Words fontSize={22} lineHeight={28} fontWeight="600" color="$doingText" numberOfLines={1}>
          {happened ?? ''}
        </Words>
      </Row>
      {switches.length === 0 && (
        <Column gap={12} alignItems="flex-start">
          <Words>{WORDS.thereNoPedal}</Words>
          <Button kind="primary" onPress={() => router.push('/gig/pedals')}>
            {WORDS.pedalsAndMidi}
          </Button>
        </Column>
      )}
      <Grid
        flex={1}
        minHeight={0}
        gap={12}
        gridTemplateColumns="repeat(auto-fit, minmax(140px, 1fr))"
        style={{ gridAutoRows: '1fr' }}
      >
        {switches.map((control) => (
          <Stomp key={control.id} control={control} />
        ))}
      </Grid>
    </Column>
  );
}

function Stomp({ control }: { readonly control: SwitchControl }) {
  const app = useHovlix();
  const down = useStore(app.controls.store, (state) => state.down.includes(control.id));
  const words = useMoment((moment) => gestureWords(moment, control, 'press'));
  const { foot } = app.controls;
  const held = useHeld({
    down: (event) => foot(control.id, true, whenOf(event)),
    up: (event) => foot(control.id, false, whenOf(event)),
  });
  return (
    <View
      render="button"
      aria-label={WORDS.switch(control.name)}
      aria-pressed={down}
      borderRadius={28}
      borderWidth={3}
      borderColor={down ? '$doing' : '$line'}
      backgroundColor={down ? '$doing' : '$well'}
      alignItems="center"
      justifyContent="center"
      gap={8}
      padding={12}
      cursor="pointer"
      userSelect="none"
      {...{ ...held, style: { touchAction: 'none' } }}
    >
      <Text fontFamily="$heading" fontWeight="650" fontSize={34} lineHeight={38} color={down ? '$onDoing' : '$text'}>
        {control.name}
      </Text>
      <Quiet fontSize={16} lineHeight={20} textAlign="center" color={down ? '$onDoing' : '$quiet'}>
        {words || 'nothing now'}
      </Quiet>
    </View>
  );
}
