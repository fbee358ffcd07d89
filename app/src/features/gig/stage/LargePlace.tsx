// For the phone on the amp: what is on, and what the foot will do now, in letters to be read from two metres.

import { useEffect } from 'react';
import { useRouter } from 'expo-router';
import { Text, View } from '@tamagui/core';
import X from 'lucide-react-native/icons/x';
import type { Gesture, SwitchControl } from '@hovlix/core/gig';
import { isFrozen, placeAt, sectionNow, songTimeAt, stopWords, wordsNow } from '@hovlix/core/live';
import { gigPlace, barSpan } from '@hovlix/core/song';
import type { Show } from '@hovlix/core/show';
import { useLive, useShow } from '../../../host/hovlix';
import { keepAwake } from '../../../host/screen';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Row, Grid } from '../../../ui/pieces';
import { Trouble } from './Trouble';
import { doesNow, footSwitches, gestureWords } from '../pedal/model';
import { useHappened } from '../pedal/use-happened';
import { songOfStop } from '../now/Head';
import { useMoment } from '../use-moment';
import { WORDS } from './words';
import { GESTURE_NAMES } from '../pedal/words';

export function LargePlace() {
  const router = useRouter();
  const palette = usePalette();
  const show = useShow((one) => one);
  const happened = useHappened();
  const dark = useLive((live) => live.blackout.on);
  useEffect(() => keepAwake(), []);
  if (!show) return null;
  const switches = footSwitches(show);
  return (
    <Column
      flex={1}
      height="100%"
      backgroundColor={dark ? '$doing' : '$ground'}
      padding={14}
      gap={10}
      data-testid="large"
    >
      <Row justifyContent="space-between" gap={8} alignItems="flex-start">
        <Now show={show} dark={dark} />
        <Button label={WORDS.close} kind="quiet" onPress={() => router.push('/gig')}>
          <X size={24} color={dark ? palette.onDoing : palette.text} aria-hidden />
        </Button>
      </Row>
      <Trouble />
      {happened !== null ? (
        <View
          flex={1}
          alignItems="center"
          justifyContent="center"
          borderRadius={22}
          backgroundColor="$doing"
          padding={16}
          role="status"
          testID="happened"
        >
          <Big words={happened} size={64} colour="$onDoing" />
        </View>
      ) : switches.length <= 1 ? (
        <One control={switches[0]} dark={dark} />
      ) : (
        <Many switches={switches} dark={dark} />
      )}
    </Column>
  );
}

/** Dark, frozen, or the song and where it is. */
function Now({ show, dark }: { readonly show: Show; readonly dark: boolean }) {
  const title = useMoment((moment) => {
    const { stops, at } = placeAt(moment);
    return songOfStop(moment)?.title ?? (stops[at] ? stopWords(show, stops[at]) : show.name);
  });
  const where = useMoment((moment) => {
    const song = songOfStop(moment);
    const { song: live } = moment.live;
    if (!song || live?.id !== song.id || !live.playing) return live?.id === song?.id && live ? 'ready' : '';
    const place = gigPlace(song, songTimeAt(live, moment.now), barSpan(song).last);
    return `${sectionNow(moment)?.name ?? ''} ${place.bar}/${place.of}`.trim();
  });
  const frozen = useLive(isFrozen);
  return (
    <Column flex={1} minWidth={0} gap={2}>
      <Big
        title
        words={dark ? 'BLACKOUT' : frozen ? 'FROZEN' : (title ?? '')}
        size={44}
        colour={dark ? '$onDoing' : '$text'}
      />
      <Big words={where ?? ''} size={36} colour={dark ? '$onDoing' : '$quiet'} />
    </Column>
  );
}

type BigProps = { readonly words: string; readonly size: number; readonly colour: string; readonly title?: boolean };

/** Smaller only where it would not fit: long texts, and words that are wider than what they are in. */
function Big({ words, size, colour, title = false }: BigProps) {
  const fit = Math.round(size * (words.length > 26 ? 0.62 : words.length > 16 ? 0.8 : 1));
  const longest = Math.max(1, ...words.split(' ').map((word) => word.length));
  return (
    <View containerType="inline-size" width="100%">
      <Text
        {...(title ? { render: 'h1' as const } : {})}
        margin={0}
        fontFamily="$heading"
        fontWeight="650"
        color={colour as '$text'}
        display="block"
        style={{ fontSize: `min(${fit}px, ${(100 / (LETTER * longest)).toFixed(1)}cqw)`, lineHeight: '1.08em' }}
      >
        {words}
      </Text>
    </View>
  );
}

/** How wide a letter of the headings is on average, of its size. */
const LETTER = 0.6;

const ON = { act: 'stop', way: 'next' } as const;

function One({ control, dark }: { readonly control: SwitchControl | undefined; readonly dark: boolean }) {
  const has = useMoment(
    (moment) =>
      control &&
      (['press', 'double', 'hold'] as const).filter((one) => doesNow(moment, control)[one].length > 0).join(' '),
  );
  const on = useMoment((moment) => wordsNow(moment, ON));
  const gestures = (has ?? '').split(' ').filter(Boolean) as Gesture[];
  if (!control) return <Panel name={WORDS.next} words={on || WORDS.setEndsHere} large dark={dark} />;
  return (
    <Column flex={1} gap={10} minHeight={0}>
      {gestures.map((gesture) => (
        <GesturePanel key={gesture} control={control} gesture={gesture} dark={dark} />
      ))}
    </Column>
  );
}

type PanelOf = { readonly control: SwitchControl; readonly gesture: Gesture; readonly dark: boolean };

function GesturePanel({ control, gesture, dark }: PanelOf) {
  const words = useMoment((moment) => gestureWords(moment, control, gesture));
  return <Panel name={GESTURE_NAMES[gesture]} words={words || '–'} large={gesture === 'press'} dark={dark} />;
}

type PanelProps = { readonly name: string; readonly words: string; readonly large?: boolean; readonly dark: boolean };

function Panel({ name, words, large = false, dark }: PanelProps) {
  return (
    <Column
      flex={large ? 2 : 1}
      minHeight={0}
      justifyContent="center"
      borderRadius={22}
      paddingHorizontal={18}
      overflow="hidden"
      backgroundColor={dark ? 'transparent' : large ? '$well' : '$sunken'}
      borderWidth={2}
      borderColor={dark ? '$onDoing' : large ? '$doing' : '$line'}
    >
      <Text fontFamily="$body" fontWeight="600" fontSize={24} lineHeight={30} color={dark ? '$onDoing' : '$quiet'}>
        {name}
      </Text>
      <Big words={words} size={large ? 60 : 42} colour={dark ? '$onDoing' : large ? '$doingText' : '$text'} />
    </Column>
  );
}

function Many({ switches, dark }: { readonly switches: readonly SwitchControl[]; readonly dark: boolean }) {
  return (
    <Grid
      flex={1}
      minHeight={0}
      gap={10}
      gridTemplateColumns="repeat(auto-fit, minmax(max(160px, 26vw), 1fr))"
      style={{ gridAutoRows: '1fr' }}
    >
      {switches.slice(0, 10).map((control) => (
        <SwitchPanel key={control.id} control={control} dark={dark} />
      ))}
    </Grid>
  );
}

function SwitchPanel({ control, dark }: { readonly control: SwitchControl; readonly dark: boolean }) {
  const words = useMoment((moment) => gestureWords(moment, control, 'press'));
  const hold = useMoment((moment) => gestureWords(moment, control, 'hold'));
  return <Panel name={hold ? WORDS.hold(control.name, hold) : control.name} words={words || '–'} dark={dark} />;
}
