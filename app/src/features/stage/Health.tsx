// Sending or not, and how fast: always a word with the colour. A tap opens the master output, in every place.

import { useEffect, useRef, useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { router } from 'expo-router';
import { View } from '@tamagui/core';
import { SAFE } from '@hovlix/core/show';
import { useHovlix, useLink, useLive, useMay, useShow } from '../../host/hovlix';
import { statusQuery } from '../../data/queries';
import { MasterOutput } from '../../ui/MasterOutput';
import { Column, Quiet, Words } from '../../ui/pieces';
import { HeldMark } from './Held';
import { healthOf } from './model';

/** That flashes may come more often than is held to be safe. */
function FlashMark() {
  const safety = useShow((show) => show.safety);
  if (!safety || (safety.on && safety.most <= SAFE.most)) return null;
  const words = safety.on ? `up to ${safety.most} flashes a second` : 'flashes not limited';
  return (
    <View
      render="button"
      aria-label={`Flash safety: ${words}`}
      onPress={() => router.push('/gig/flashes')}
      height={44}
      paddingHorizontal={4}
      justifyContent="center"
      backgroundColor="transparent"
      borderWidth={0}
      cursor="pointer"
    >
      <View paddingHorizontal={10} height={26} justifyContent="center" borderRadius={13} borderWidth={1} borderColor="$warn" backgroundColor="#0c0a10">
        <Words fontSize={12} lineHeight={16} fontWeight="600" color="$warn">
          {words}
        </Words>
      </View>
    </View>
  ); // prettier-ignore
}

/** That the light is on this screen alone, or that this device may not do everything: both said on every place. */
function HereMark() {
  const app = useHovlix();
  const here = useLink((link) => link.here);
  const may = useLink((link) => link.may);
  if (!here && may === 'operator') return null;
  const words = here ? 'only on this screen · back to the stage' : may === 'player' ? 'player' : 'viewer';
  return (
    <View
      render={here ? 'button' : 'div'}
      {...(here ? { 'aria-label': 'Only on this screen. Back to the stage' } : { role: 'status', testID: 'right' })}
      onPress={here ? () => void app.conducting.lookInto(undefined) : undefined}
      height={here ? 44 : 28}
      paddingHorizontal={4}
      justifyContent="center"
      backgroundColor="transparent"
      borderWidth={0}
      cursor={here ? 'pointer' : 'default'}
    >
      <View paddingHorizontal={10} height={26} justifyContent="center" borderRadius={13} borderWidth={1} borderColor="$warn" backgroundColor="#0c0a10">
        <Words fontSize={12} lineHeight={16} fontWeight="600" color="$warn">
          {words}
        </Words>
      </View>
    </View>
  ); // prettier-ignore
}

export function Health() {
  const conductor = useLink((link) => link.conductor);
  const sending = useLive((live) => live.sending);
  const dark = useLive((live) => live.blackout.on);
  const status = useQuery(statusQuery(conductor === 'server')).data;
  const may = useMay('operator');
  const [open, setOpen] = useState(false);
  const pill = useRef<HTMLElement>(null);
  useEffect(() => {
    if (!open) return;
    const elsewhere = (event: PointerEvent) => {
      if (!pill.current?.contains(event.target as Node)) setOpen(false);
    };
    window.addEventListener('pointerdown', elsewhere);
    return () => window.removeEventListener('pointerdown', elsewhere);
  }, [open]);
  const { colour, text } = healthOf(conductor, sending, status?.output ?? null);
  return (
    <View ref={pill as never} position="absolute" right={6} top={0} gap={2} alignItems="flex-end" theme="dark">
      <View
        render="button"
        aria-expanded={open}
        aria-label={`Output: ${text}`}
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
      {dark && (
        <View
          paddingHorizontal={10}
          marginRight={4}
          height={26}
          justifyContent="center"
          borderRadius={13}
          backgroundColor="$doing"
        >
          <Words fontSize={12} lineHeight={16} fontWeight="600" color="$onDoing">
            blackout
          </Words>
        </View>
      )}
      <HeldMark />
      <HereMark />
      <FlashMark />
      {open && (
        <Column
          role="dialog"
          aria-label="Master output"
          width={280}
          padding={16}
          gap={10}
          borderRadius={14}
          backgroundColor="$raised"
          borderWidth={1}
          borderColor="$line"
          boxShadow="0 12px 40px rgba(0,0,0,0.5)"
        >
          <Words fontWeight="600">Master output</Words>
          <Quiet>
            {conductor !== 'server'
              ? 'A web page alone cannot send DMX. Start Hovlix with ./start and open the address it prints.'
              : sending
                ? 'We are sending. For a dark stage use blackout below; this stops sending altogether.'
                : 'We send nothing at all. Lamps use their own no-signal setting.'}
          </Quiet>
          {conductor === 'server' && may && <MasterOutput />}
        </Column>
      )}
    </View>
  );
}
