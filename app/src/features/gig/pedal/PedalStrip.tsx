// What the pedal will do now, in large words; without a pedal, the ways on and back.

import { Text, useMedia, View } from '@tamagui/core';
import type { Act, Gesture, SwitchControl } from '@hovlix/core/gig';
import { wordsNow } from '@hovlix/core/live';
import type { Show } from '@hovlix/core/show';
import { useStore } from 'zustand';
import { doAct, doActs } from '../../../host/controls/act';
import { momentOf } from '../../../host/conduct/gestures';
import { whenOf } from '../../../host/conduct/local-clock';
import { useHovlix } from '../../../host/hovlix';
import { useHeld } from '../../../ui/held';
import { Column, Quiet, Row } from '../../../ui/pieces';
import { useMoment } from '../use-moment';
import { doesNow, footSwitches, gestureWords } from './model';
import { useHappened } from './use-happened';
import { WORDS, GESTURE_NAMES } from './words';

const ON: Act = { act: 'stop', way: 'next' };
const BACK: Act = { act: 'stop', way: 'previous' };

export function PedalStrip({ show }: { readonly show: Show }) {
  const switches = footSwitches(show);
  const happened = useHappened();
  const { flat } = useMedia();
  return (
    <Row
      role="group"
      aria-label={WORDS.pedal}
      position="relative"
      gap={0}
      alignItems="stretch"
      minHeight={flat ? 60 : 84}
      backgroundColor="$raised"
      borderTopWidth={1}
      borderColor="$line"
      flexShrink={0}
      overflow="hidden"
      style={{ overflowX: 'auto' }}
    >
      {switches.length === 0 && <WithoutPedal />}
      {switches.length === 1 && <OneSwitch control={switches[0]!} />}
      {switches.length > 1 && switches.map((one) => <OneOfMany key={one.id} control={one} />)}
      {happened !== null && <Happened words={happened} />}
    </Row>
  );
}

/** What was done just now, over all of it, for a second. */
function Happened({ words }: { readonly words: string }) {
  return (
    <View
      position="absolute"
      left={0}
      right={0}
      top={0}
      bottom={0}
      backgroundColor="$doing"
      alignItems="center"
      justifyContent="center"
      paddingHorizontal={16}
      role="status"
      testID="happened"
    >
      <Text
        fontFamily="$heading"
        fontWeight="650"
        fontSize={26}
        lineHeight={30}
        color="$onDoing"
        numberOfLines={2}
        textAlign="center"
      >
        {words}
      </Text>
    </View>
  );
}

function WithoutPedal() {
  const app = useHovlix();
  const on = useMoment((moment) => wordsNow(moment, ON)) ?? '';
  const back = useMoment((moment) => wordsNow(moment, BACK)) ?? '';
  return (
    <>
      <Cell name={WORDS.on} words={on || WORDS.setEndsHere} large flex={3} off={!on} onPress={() => doAct(app, ON)} />
      <Cell
        name={WORDS.back}
        words={back || WORDS.nothingBefore}
        flex={2}
        off={!back}
        onPress={() => doAct(app, BACK)}
      />
    </>
  );
}

function OneSwitch({ control }: { readonly control: SwitchControl }) {
  const app = useHovlix();
  const has =
    useMoment((moment) =>
      (['press', 'double', 'hold'] as const).filter((one) => doesNow(moment, control)[one].length > 0).join(' '),
    ) ?? '';
  const gestures = has.split(' ').filter(Boolean) as Gesture[];
  const press = (gesture: Gesture) => {
    const moment = momentOf(app);
    if (moment) doActs(app, doesNow(moment, control)[gesture]);
  };
  if (gestures.length === 0) return <Cell name={control.name} words={WORDS.doesNothingHere} flex={1} off />;
  return gestures.map((gesture) => (
    <OneGesture key={gesture} control={control} gesture={gesture} onPress={() => press(gesture)} />
  ));
}

type GestureProps = { readonly control: SwitchControl; readonly gesture: Gesture; readonly onPress: () => void };

function OneGesture({ control, gesture, onPress }: GestureProps) {
  const { wide } = useMedia();
  const words = useMoment((moment) => gestureWords(moment, control, gesture)) ?? '';
  return (
    <Cell
      name={GESTURE_NAMES[gesture]}
      words={words || WORDS.nothing}
      off={words === ''}
      large={gesture === 'press'}
      flex={gesture === 'press' ? (wide ? 4 : 3) : 2}
      onPress={onPress}
    />
  );
}

function OneOfMany({ control }: { readonly control: SwitchControl }) {
  const app = useHovlix();
  const words = useMoment((moment) => gestureWords(moment, control, 'press')) ?? '';
  const more = useMoment((moment) => {
    const double = gestureWords(moment, control, 'double');
    const hold = gestureWords(moment, control, 'hold');
    return [double && `twice: ${double}`, hold && `hold: ${hold}`].filter(Boolean).join(' · ');
  });
  const down = useStore(app.controls.store, (state) => state.down.includes(control.id));
  const { foot } = app.controls;
  const held = useHeld({
    down: (event) => foot(control.id, true, whenOf(event)),
    up: (event) => foot(control.id, false, whenOf(event)),
  });
  return (
    <View
      render="button"
      aria-label={`${control.name}: ${words || 'nothing'}`}
      flex={1}
      minWidth={92}
      padding={8}
      gap={2}
      borderWidth={0}
      borderLeftWidth={1}
      borderColor="$line"
      backgroundColor={down ? '$doing' : 'transparent'}
      alignItems="flex-start"
      cursor="pointer"
      {...held}
    >
      <Quiet numberOfLines={1} color={down ? '$onDoing' : '$quiet'}>
        {control.name}
      </Quiet>
      <Text
        fontFamily="$heading"
        fontWeight="650"
        fontSize={16}
        lineHeight={19}
        textAlign="left"
        color={down ? '$onDoing' : '$text'}
        numberOfLines={2}
      >
        {words || '–'}
      </Text>
      {more !== '' && (
        <Quiet fontSize={12} lineHeight={15} numberOfLines={1}>
          {more}
        </Quiet>
      )}
    </View>
  );
}

type CellProps = {
  readonly name: string;
  readonly words: string;
  readonly flex: number;
  readonly large?: boolean;
  readonly off?: boolean;
  readonly onPress?: () => void;
};

/** Up to how many letters words are as large as can be, and how large they are then, and else. */
const FITS = {
  phone: { large: [20, [22, 18]], small: [14, [17, 14]] },
  flat: { large: [14, [19, 16]], small: [14, [16, 14]] },
  wide: { large: [26, [30, 24]], small: [14, [25, 20]] },
} as const;

function Cell({ name, words, flex, large = false, off = false, onPress }: CellProps) {
  const { wide, narrow, flat } = useMedia();
  const [most, sizes] = FITS[flat ? 'flat' : wide ? 'wide' : 'phone'][large ? 'large' : 'small'];
  const size = sizes[words.length > most ? 1 : 0];
  return (
    <View
      render="button"
      aria-label={`${name}: ${words}`}
      aria-disabled={off || undefined}
      onPress={off ? undefined : onPress}
      flex={flex}
      minWidth={0}
      paddingHorizontal={narrow ? 8 : 12}
      paddingVertical={flat ? 4 : 8}
      borderWidth={0}
      borderLeftWidth={1}
      borderColor="$line"
      backgroundColor="transparent"
      alignItems="flex-start"
      cursor={off ? 'default' : 'pointer'}
      pressStyle={{ backgroundColor: '$well' }}
    >
      <Column gap={flat ? 0 : 2} minWidth={0} width="100%">
        <Quiet textAlign="left">{name}</Quiet>
        <Text
          fontFamily="$heading"
          fontWeight="650"
          fontSize={size}
          lineHeight={size + 3}
          textAlign="left"
          color={off ? '$quiet' : large ? '$doingText' : '$text'}
          numberOfLines={3}
        >
          {words}
        </Text>
      </Column>
    </View>
  );
}
