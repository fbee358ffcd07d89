// Before there is a show: three ways to begin.

import { useState } from 'react';
import { Text, View } from '@tamagui/core';
import { wordsFor } from '@hovlix/core/problem';
import { useHovlix, useLink, useMay, useShow } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { FileButton } from '../../ui/FileButton';
import { useOpenFile } from '../../ui/use-open-file';
import { Button, ButtonText, Column, Quiet, Title, Words } from '../../ui/pieces';
import { WORDS } from './words';

/** True while nothing is on and nobody said what should be. */
export function useIsEmpty(): boolean {
  const waiting = useLink((link) => link.waiting);
  const open = useShow((show) => show.id);
  return waiting && open === undefined;
}

export function Welcome() {
  const { shows } = useHovlix();
  const may = useMay('operator');
  const say = useSession((session) => session.say);
  const open = useOpenFile();
  const [busy, setBusy] = useState(false);
  const demo = async () => {
    setBusy(true);
    const problem = await shows.openDemo();
    setBusy(false);
    if (problem) say(wordsFor(problem), { tone: 'bad' });
  };
  if (busy) return <Quiet padding={24}>{WORDS.openingTheDemo}</Quiet>;
  return (
    <View flex={1} justifyContent="center" padding={24}>
      <Column gap={14} maxWidth={420} width="100%" marginHorizontal="auto" alignItems="stretch">
        <Title render="h1" margin={0} fontSize={34} lineHeight={38}>
          {WORDS.yourLightShow}
        </Title>
        <Words color="$quiet">{WORDS.addYourLamps}</Words>
        {may ? (
          <>
            <Button kind="primary" onPress={() => void shows.begin(WORDS.myShow)}>
              {WORDS.beginMyOwn}
            </Button>
            <Button onPress={() => void demo()}>{WORDS.lookAroundDemo}</Button>
            <FileButton label={WORDS.openHovlixFile} accept=".hovlix" onFiles={open}>
              <ButtonText>{WORDS.openAFile}</ButtonText>
            </FileButton>
          </>
        ) : (
          <Text fontFamily="$body" color="$text">
            {WORDS.noShowYet}
          </Text>
        )}
      </Column>
    </View>
  );
}
