// Looks and chases as large pads: pictures of their light.

import { Text, useMedia, View } from '@tamagui/core';
import type { Bank, Pad, Press } from '@hovlix/core/light';
import { isWaiting } from '@hovlix/core/live';
import { PAD_KEYS, padUp } from '../../../host/conduct/gestures';
import { pressPad } from '../../../host/controls/act';
import { useHovlix, useLive, usePlays } from '../../../host/hovlix';
import { useIsOn } from '../../../host/conduct/use-is-on';
import { atOnceUnlessScrolling, maySound } from '../../../ui/at-once';
import { useHeld } from '../../../ui/held';
import { Growing } from '../../../ui/Growing';
import { LookPicture } from '../../../ui/LookPicture';
import { Row, Grid } from '../../../ui/pieces';
import { useUnlit } from '../../../ui/use-unlit';
import { useMoment } from '../use-moment';
import { NoPads } from './NoPads';
import { WORDS } from './words';

const PRESS_WORDS: Readonly<Record<Press, string>> = {
  toggle: '',
  start: 'starts',
  stop: 'stops',
  flash: 'while held',
};

export type BankProps = { readonly banks: readonly Bank[]; readonly bank: Bank };

type Props = BankProps & { readonly onChange: () => void };

/** The pads of a bank whose looks are there, with the keys that press them. */
export function useBankPads(bank: Bank) {
  const plays = usePlays();
  return bank.pads.flatMap((pad, i) => {
    const play = plays.find((one) => one.id === pad.look);
    return play ? [{ pad, name: play.name, letter: PAD_KEYS[i]?.toUpperCase() }] : [];
  });
}

export function Pads({ banks, bank, onChange }: Props) {
  const { short } = useMedia();
  const pads = useBankPads(bank);
  if (pads.length === 0) return <NoPads words={WORDS.noPadBank} way={WORDS.changeThisBank} onWay={onChange} />;
  return (
    <Grid
      role="group"
      aria-label={WORDS.pads}
      gridTemplateColumns="repeat(auto-fill, minmax(150px, 1fr))"
      gap={12}
      paddingHorizontal={12}
      paddingBottom={12}
    >
      <Growing items={pads}>
        {(some) =>
          some.map((one, i) => <OnePad key={`${one.pad.look} ${i}`} {...one} banks={banks} height={short ? 84 : 104} />)
        }
      </Growing>
    </Grid>
  );
}

function usePresses(pad: Pad, banks: readonly Bank[]) {
  const app = useHovlix();
  const press = () => pressPad(app, pad, banks);
  const flash = pad.press === 'flash';
  const held = useHeld({ down: press, up: () => padUp(app, pad) }, flash);
  if (flash) return held;
  return atOnceUnlessScrolling(press, (pad.also ?? []).length > 0 ? maySound : undefined);
}

type OneProps = {
  readonly pad: Pad;
  readonly name: string;
  readonly letter: string | undefined;
  readonly banks: readonly Bank[];
  /** In pixels. */
  readonly height: number;
  /** Among many on a small screen: its name may take two lines. */
  readonly small?: boolean;
};

export function OnePad({ pad, name, letter, banks, height, small = false }: OneProps) {
  const on = useIsOn(pad.look);
  const unlit = useUnlit(pad.look);
  const armed = useLive((live) => live.blackout.on || (live.song?.playing ?? false));
  const waits = useMoment(({ live, now }) => live.standing.some((one) => one.look === pad.look && isWaiting(one, now)));
  const state = waits ? WORDS.onTheNext(pad.waits ?? 'beat') : on ? (armed ? 'armed' : 'on') : '';
  const words = [state, PRESS_WORDS[pad.press]].filter(Boolean).join(' · ');
  const dashed = on && (armed || waits);
  const flash = pad.press === 'flash';
  return (
    <View
      render="button"
      aria-label={`${name}${letter ? `, key ${letter}` : ''}, ${on ? 'on' : 'off'}${flash ? ', lit while it is held' : ''}`}
      aria-pressed={on}
      aria-description={unlit}
      {...usePresses(pad, banks)}
      height={height}
      padding={0}
      borderRadius={14}
      overflow="hidden"
      borderWidth={2}
      borderStyle={dashed ? 'dashed' : 'solid'}
      borderColor={dashed ? '$warn' : on ? '$doing' : '$line'}
      backgroundColor="#000"
      cursor="pointer"
      position="relative"
      pressStyle={{ opacity: 0.8 }}
      minWidth={0}
      opacity={pad.skip ? 0.65 : 1}
    >
      <LookPicture look={pad.look} height={height - 4} />
      <View
        position="absolute"
        left={0}
        right={0}
        bottom={0}
        height={56}
        style={{ background: 'linear-gradient(transparent, rgba(8,6,10,.88))' }}
      />
      <Text
        position="absolute"
        left={10}
        bottom={8}
        right={10}
        textAlign="left"
        fontFamily="$heading"
        fontWeight="650"
        fontSize={small ? 14 : 17}
        lineHeight={small ? 17 : 22}
        color="#fff"
        numberOfLines={small ? 2 : 1}
      >
        {name}
      </Text>
      <Row position="absolute" left={10} right={10} top={6} justifyContent="space-between">
        <Text fontFamily="$body" fontSize={13} lineHeight={18} fontWeight="600" color="#fff">
          {words}
        </Text>
        <Text fontFamily="$mono" fontSize={13} lineHeight={18} color="#fff">
          {letter ?? ''}
        </Text>
      </Row>
    </View>
  );
}
