// Looks and chases as large pads: pictures of their light.

import { Text, View } from '@tamagui/core';
import type { Bank, Pad, Press } from '@hovlix/core/light';
import { padDown, padUp } from '../../host/conduct/gestures';
import { useHovlix, useLive, usePlays } from '../../host/hovlix';
import { useIsOn } from '../../host/conduct/use-is-on';
import { LookPicture } from '../../ui/LookPicture';
import { Quiet, Row } from '../../ui/pieces';

const PRESS_WORDS: Readonly<Record<Press, string>> = {
  toggle: '',
  start: 'starts',
  stop: 'stops',
  flash: 'while held',
};

export function Pads({ banks, bank }: { readonly banks: readonly Bank[]; readonly bank: Bank }) {
  const plays = usePlays();
  const pads = bank.pads.flatMap((pad, i) => {
    const play = plays.find((one) => one.id === pad.look);
    return play ? [{ pad, play, digit: i < 9 ? i + 1 : undefined }] : [];
  });
  if (pads.length === 0)
    return <Quiet paddingHorizontal={16}>No pad is in this bank yet. Change puts looks in it.</Quiet>;
  return (
    <div
      role="group"
      aria-label="Pads"
      style={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(168px, 1fr))', gap: 12, padding: '0 12px 12px' }}
    >
      {pads.map(({ pad, play, digit }, i) => (
        <OnePad key={`${pad.look} ${i}`} pad={pad} name={play.name} digit={digit} banks={banks} />
      ))}
    </div>
  ); // prettier-ignore
}

type OneProps = {
  readonly pad: Pad;
  readonly name: string;
  readonly digit: number | undefined;
  readonly banks: readonly Bank[];
};

function OnePad({ pad, name, digit, banks }: OneProps) {
  const app = useHovlix();
  const on = useIsOn(pad.look);
  const armed = useLive((live) => live.blackout.on || (live.song?.playing ?? false));
  const words = [on ? (armed ? 'armed' : 'on') : '', PRESS_WORDS[pad.press]].filter(Boolean).join(' · ');
  const flash = pad.press === 'flash';
  return (
    <View
      render="button"
      aria-label={`${name}${digit ? `, key ${digit}` : ''}, ${on ? 'on' : 'off'}${flash ? ', lit while it is held' : ''}`}
      aria-pressed={on}
      {...(flash ? { onPressIn: () => padDown(app, pad, banks), onPressOut: () => padUp(app, pad) } : { onPress: () => padDown(app, pad, banks) })}
      height={104}
      padding={0}
      borderRadius={14}
      overflow="hidden"
      borderWidth={2}
      borderStyle={on && armed ? 'dashed' : 'solid'}
      borderColor={on ? (armed ? '$warn' : '$doing') : '$line'}
      backgroundColor="#000"
      cursor="pointer"
      position="relative"
      pressStyle={{ opacity: 0.8 }}
      minWidth={0}
      opacity={pad.skip ? 0.65 : 1}
    >
      <LookPicture look={pad.look} height={100} />
      <View position="absolute" left={0} right={0} bottom={0} height={56} style={{ background: 'linear-gradient(transparent, rgba(8,6,10,.88))' }} />
      <Text position="absolute" left={10} bottom={8} right={10} textAlign="left" fontFamily="$heading" fontWeight="650" fontSize={17} lineHeight={22} color="#fff" numberOfLines={1}>
        {name}
      </Text>
      <Row position="absolute" left={10} right={10} top={6} justifyContent="space-between">
        <Text fontFamily="$body" fontSize={13} lineHeight={18} fontWeight="600" color="#fff">
          {words}
        </Text>
        <Text fontFamily="$mono" fontSize={13} lineHeight={18} color="#fff">
          {digit ?? ''}
        </Text>
      </Row>
    </View>
  ); // prettier-ignore
}
