// Why does this lamp do what it does? Every layer that sets it, what wins, and what keeps it dark.

import { useEffect, useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { Text } from '@tamagui/core';
import X from 'lucide-react-native/icons/x';
import type { Darkness, Explanation } from '@hovlix/core/engine';
import { modeOf, seenBy, type Fixture, type Profile } from '@hovlix/core/rig';
import { seconds } from '@hovlix/core/units';
import { statusQuery } from '../../data/queries';
import { useHovlix, useLink, useConnections, useLive, useStage } from '../../host/hovlix';
import type { When } from '../../host/light/light-messages';
import { usePalette } from '../../ui/palette';
import { Button, Column, Figures, Quiet, Row, Words } from '../../ui/pieces';
import { contributionWords, unheardWords } from './model';
import { WhenRow } from './WhenRow';
import { DARK, WORDS } from './words';

/** Long enough to walk to the lamp and look. */
const FLASH_FOR = seconds(5);

const SHUT: ReadonlySet<Darkness> = new Set(['shutter-closed', 'emitters-0', 'lamp-off']);

type Props = {
  readonly fixture: Fixture;
  readonly profile: Profile;
  readonly onChange: () => void;
  readonly onByHand: () => void;
  readonly onClose: () => void;
};

export function Why({ fixture, profile, onChange, onByHand, onClose }: Props) {
  const { light, conducting } = useHovlix();
  const palette = usePalette();
  const stage = useStage();
  const seq = useLive((live) => live.seq);
  const [when, setWhen] = useState<When>('now');
  const [why, setWhy] = useState<Explanation | null>(null);
  const conductor = useLink((link) => link.conductor);
  const status = useQuery(statusQuery(conductor === 'server')).data;
  const outputs = useConnections((state) => state.connections?.outputs);
  useEffect(() => {
    let wanted = true;
    const ask = () => void light.explain(fixture.id, when).then((answer) => wanted && setWhy(answer));
    ask();
    const timer = setInterval(ask, 500);
    return () => {
      wanted = false;
      clearInterval(timer);
    };
  }, [light, fixture.id, stage, seq, when]);
  const unheard =
    conductor === 'server' && outputs ? unheardWords(fixture.universe, outputs, status?.output?.rows ?? []) : undefined;
  // What its own channels keep dark is dark, whatever its level.
  const shines = why !== null && why.level > 0.002 && !why.dark.some((reason) => SHUT.has(reason));
  const flash = () => {
    const mode = modeOf(profile, fixture);
    const only = (mode ? seenBy(mode) : []).map((at) => fixture.address + at - 1).filter((at) => at <= 512);
    if (only.length === 0) return;
    const { universe } = fixture;
    conducting.act({ type: 'flash-channels', universe, from: 1, count: 512, only, length: FLASH_FOR });
  };
  return (
    <Column
      margin={12}
      padding={16}
      gap={8}
      borderRadius={14}
      backgroundColor="$raised"
      role="region"
      aria-label={WORDS.why(fixture.name)}
    >
      <Row justifyContent="space-between">
        <Text render="h2" margin={0} fontFamily="$heading" fontWeight="650" fontSize={16} lineHeight={22} color="$text">
          {WORDS.whyAsked(fixture.name)}
        </Text>
        <Button label={WORDS.close} kind="quiet" onPress={onClose}>
          <X size={20} color={palette.text} aria-hidden />
        </Button>
      </Row>
      <WhenRow when={when} onWhen={setWhen} />
      {why && (
        <>
          {profile.kind !== 'hazer' && (
            <Words fontWeight="600">
              {shines ? WORDS.shinesAt(Math.round(why.level * 100)) : WORDS.dark}
              {when === 'now' ? '' : ' there'}
              {why.master < 1 && shines ? `, masters at ${Math.round(why.master * 100)} %` : ''}
            </Words>
          )}
          {profile.kind !== 'hazer' &&
            (shines ? why.dark.filter((reason) => reason === 'overlap') : why.dark).map((reason) => (
              <Words key={reason}>{DARK[reason]}</Words>
            ))}
          {unheard && <Words>{unheard}</Words>}
          {why.frozen && <Words>{WORDS.lightFrozenWhat}</Words>}
          {why.held && <Words>{WORDS.handOrTest}</Words>}
          {contributionWords(why.contributions).map((line) => (
            <Quiet key={line}>{line}</Quiet>
          ))}
          <Row gap={8} flexWrap="wrap">
            <Button onPress={flash}>{WORDS.flashThisLamp}</Button>
            <Button onPress={onByHand}>{WORDS.byHand}</Button>
            <Button onPress={onChange}>{WORDS.change}</Button>
          </Row>
          <Figures>
            {WORDS.channels(fixture.address, fixture.address + why.bytes.length - 1, why.bytes.join(' '))}
          </Figures>
        </>
      )}
    </Column>
  );
}
