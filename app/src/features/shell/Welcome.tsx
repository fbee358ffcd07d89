// Before there is a show: three ways to begin.

import { useState } from 'react';
import { Text, View } from '@tamagui/core';
import { wordsFor } from '@hovlix/core/problem';
import { useHovlix, useLink, useMay, useShow } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { FileButton } from '../../ui/FileButton';
import { useOpenFile } from '../../ui/use-open-file';
import { Button, ButtonText, Column, Quiet, Title, Words } from '../../ui/pieces';

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
  if (busy) return <Quiet padding={24}>Opening the demo …</Quiet>;
  return (
    <View flex={1} justifyContent="center" padding={24}>
      <Column gap={14} maxWidth={420} width="100%" marginHorizontal="auto" alignItems="stretch">
        <Title render="h1" margin={0} fontSize={34} lineHeight={38}>
          Your light show starts here
        </Title>
        <Words color="$quiet">
          Add your lamps, bring in your songs, and the light follows the music. Everything stays on this device.
        </Words>
        {may ? (
          <>
            <Button kind="primary" onPress={() => void shows.begin('My show')}>
              Begin my own show
            </Button>
            <Button onPress={() => void demo()}>Look around in the demo</Button>
            <FileButton label="Open a .hovlix file" accept=".hovlix" onFiles={open}>
              <ButtonText>Open a file</ButtonText>
            </FileButton>
          </>
        ) : (
          <Text fontFamily="$body" color="$text">
            No show is on yet. Whoever is at the computer begins one or opens one; it will be here at once.
          </Text>
        )}
      </Column>
    </View>
  );
}
