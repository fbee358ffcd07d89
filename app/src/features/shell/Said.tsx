import type { TamaguiWebElement } from '@tamagui/core';
import { useRef } from 'react';
import { useStore } from 'zustand';
import { wordsFor } from '@hovlix/core/problem';
import { useHovlix } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { Button, Row, Words } from '../../ui/pieces';
import { useLeaving } from './leaving';
import { WORDS } from './words';

/** What just happened, in a sentence; problems stay until they are read. */
export function Said() {
  const said = useSession((session) => session.said);
  const hush = useSession((session) => session.hush);
  const problem = useStorageProblem();
  const row = useRef<TamaguiWebElement>(null);
  useLeaving(row, said?.tone === 'good' ? said : null, hush);
  const shown = said ?? (problem ? { text: problem, tone: 'bad' as const } : null);
  if (!shown) return null;
  const undo = 'undo' in shown ? shown.undo : undefined;
  return (
    <Row
      ref={row}
      position="absolute"
      left={12}
      right={12}
      bottom={12}
      zIndex={20}
      gap={8}
      paddingLeft={16}
      paddingRight={6}
      paddingVertical={6}
      minHeight={52}
      borderRadius={14}
      backgroundColor="$well"
      borderWidth={1}
      borderColor={shown.tone === 'bad' ? '$fault' : '$line'}
      boxShadow="0 8px 24px rgba(0,0,0,0.35)"
      maxWidth={640}
      marginHorizontal="auto"
      role={shown.tone === 'bad' ? 'alert' : 'status'}
    >
      <Words flex={1} testID="said">
        {shown.text}
      </Words>
      {undo && (
        <Button kind="quiet" onPress={() => (undo(), hush())}>
          {WORDS.undo}
        </Button>
      )}
      {said && (
        <Button kind="quiet" onPress={hush}>
          {WORDS.ok}
        </Button>
      )}
    </Row>
  );
}

function useStorageProblem(): string | null {
  return useStore(useHovlix().document.store, ({ problem }) => (problem ? wordsFor(problem) : null));
}
