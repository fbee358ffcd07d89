// Sending or not, and how fast: always a word with the colour. A tap opens the master output, in every place.

import { useEffect, useRef, useState } from 'react';
import { router } from 'expo-router';
import { View, type TamaguiWebElement } from '@tamagui/core';
import { isFrozen } from '@hovlix/core/live';
import { SAFE } from '@hovlix/core/show';
import { doAct } from '../../host/controls/act';
import { useHovlix, useLink, useLive, useMay, useShow } from '../../host/hovlix';
import { MasterOutput } from '../../ui/MasterOutput';
import { useStageTheme } from '../../ui/palette';
import { Button, Column, Quiet, Words } from '../../ui/pieces';
import { ChosenMark } from './Chosen';
import { HeldMark } from './Held';
import { Mark } from './Mark';
import type { Health as HealthNow } from './model';
import { useHealth } from './use-health';
import { WORDS } from './words';

/** That flashes may come more often than is held to be safe. */
function FlashMark() {
  const safety = useShow((show) => show.safety);
  if (!safety || (safety.on && safety.most <= SAFE.most)) return null;
  const words = safety.on ? WORDS.upFlashesSecond(safety.most) : 'flashes not limited';
  return (
    <Mark look="line" words={words} label={WORDS.flashSafety(words)} onPress={() => router.push('/gig/flashes')} />
  );
}

/** That the light is frozen, with the way to let it go on. */
function FrozenMark() {
  const app = useHovlix();
  const frozen = useLive(isFrozen);
  const may = useMay('player');
  if (!frozen) return null;
  const end = () => doAct(app, { act: 'freeze', to: 'off' });
  return may ? (
    <Mark look="full" words={WORDS.lightFrozenRelease} label={WORDS.lightFrozenReleaseSaid} onPress={end} />
  ) : (
    <Mark look="full" words={WORDS.lightFrozen} />
  );
}

/** That the light is on this screen alone, or that this device may not do everything: both said on every place. */
function HereMark() {
  const app = useHovlix();
  const here = useLink((link) => link.here);
  const may = useLink((link) => link.may);
  if (!here && may === 'operator') return null;
  const words = here ? 'only on this screen · back to the stage' : may === 'player' ? 'player' : 'viewer';
  return here ? (
    <Mark
      look="line"
      words={words}
      label={WORDS.onlyScreenBack}
      onPress={() => void app.conducting.lookInto(undefined)}
    />
  ) : (
    <Mark look="line" words={words} testID="right" />
  );
}

/** What is said of the master output where it does not simply send. */
const SAID: Readonly<Partial<Record<HealthNow['state'], string>>> = {
  off: WORDS.weSendNothing,
  none: WORDS.noOutputYet,
  failing: WORDS.notEveryOutput,
  silent: WORDS.nothingLeaves,
};
/** Where Connect says more. */
const TROUBLED: ReadonlySet<HealthNow['state']> = new Set(['none', 'failing', 'silent']);

export function Health() {
  const conductor = useLink((link) => link.conductor);
  const dark = useLive((live) => live.blackout.on);
  const may = useMay('operator');
  const [open, setOpen] = useState(false);
  const pill = useRef<TamaguiWebElement>(null);
  useEffect(() => {
    if (!open) return;
    const elsewhere = (event: PointerEvent) => {
      if (!pill.current?.contains(event.target as Node)) setOpen(false);
    };
    window.addEventListener('pointerdown', elsewhere);
    return () => window.removeEventListener('pointerdown', elsewhere);
  }, [open]);
  const { state, colour, text } = useHealth();
  const theme = useStageTheme();
  const toConnect = () => {
    setOpen(false);
    router.push('/connect');
  };
  return (
    <View ref={pill} position="absolute" right={6} top={0} gap={2} alignItems="flex-end" theme={theme}>
      <View
        render="button"
        aria-expanded={open}
        aria-label={WORDS.output(text)}
        onPress={() => setOpen(!open)}
        height={44}
        paddingHorizontal={4}
        justifyContent="center"
        backgroundColor="transparent"
        borderWidth={0}
        cursor="pointer"
      >
        <View
          flexDirection="row"
          alignItems="center"
          gap={6}
          paddingHorizontal={10}
          height={26}
          borderRadius={13}
          backgroundColor="rgba(11,9,15,0.72)"
          role="status"
        >
          <View width={8} height={8} borderRadius={4} backgroundColor={colour} />
          <Words fontSize={12} lineHeight={16} testID="health" color="$text">
            {text}
          </Words>
        </View>
      </View>
      {dark && <Mark look="doing" words="blackout" />}
      <FrozenMark />
      <HeldMark />
      <ChosenMark />
      <HereMark />
      <FlashMark />
      {open && (
        <Column
          role="dialog"
          aria-label={WORDS.masterOutput}
          width={280}
          padding={16}
          gap={10}
          borderRadius={14}
          backgroundColor="$raised"
          borderWidth={1}
          borderColor="$line"
          boxShadow="0 12px 40px rgba(0,0,0,0.5)"
        >
          <Words fontWeight="600">{WORDS.masterOutput}</Words>
          <Quiet>{conductor === 'server' ? (SAID[state] ?? WORDS.weSendingDark) : WORDS.pageAloneCannot}</Quiet>
          {may && TROUBLED.has(state) && (
            <Button kind="primary" onPress={toConnect}>
              {WORDS.connect}
            </Button>
          )}
          {may && conductor === 'server' && state !== 'none' && <MasterOutput />}
        </Column>
      )}
    </View>
  );
}
