// Undo and redo, in one spot on every place, with the name of what they take back.

import { usePathname } from 'expo-router';
import Redo2 from 'lucide-react-native/icons/redo-2';
import Undo2 from 'lucide-react-native/icons/undo-2';
import { useMedia, View } from '@tamagui/core';
import { useStore } from 'zustand';
import { stepWords } from '@hovlix/core/show';
import { useConnections, useDraft, useHovlix, type Hovlix } from '../../host/hovlix';
import { useStageTheme } from '../../ui/palette';
import { Row, Words } from '../../ui/pieces';
import { WORDS } from './words';

/** One step that can be taken, and what it is called. */
export type Steps = {
  readonly undo: string | undefined;
  readonly redo: string | undefined;
  readonly takeBack: () => void;
  readonly doAgain: () => void;
};

/** Each place takes back what was done there: outputs are not in the show, and a look in the making comes first. */
export function useSteps(): Steps {
  const app = useHovlix();
  const path = usePathname();
  const { past, future } = useStore(app.document.store, (state) => state.steps);
  const connect = useConnections((state) => state);
  const shaped = useDraft((draft) => draft.past.length > 0);
  const unshaped = useDraft((draft) => draft.future.length > 0);
  if (path.startsWith('/connect'))
    return {
      undo: connect.canUndo ? 'the last change' : undefined,
      redo: connect.canRedo ? 'the last change' : undefined,
      takeBack: app.connections.undo,
      doAgain: app.connections.redo,
    };
  const shaping = path.startsWith('/looks/');
  const show = { undo: past.at(-1)?.of, redo: future.at(-1)?.of };
  return {
    undo: shaping && shaped ? 'the last touch' : show.undo && stepWords(show.undo),
    redo: shaping && unshaped ? 'the last touch' : show.redo && stepWords(show.redo),
    takeBack: () => takeBack(app, shaping),
    doAgain: () => doAgain(app, shaping),
  };
}

function takeBack({ draft, document }: Pick<Hovlix, 'draft' | 'document'>, shaping: boolean): void {
  if (!shaping || !draft.undo()) document.undo();
}

function doAgain({ draft, document }: Pick<Hovlix, 'draft' | 'document'>, shaping: boolean): void {
  if (!shaping || !draft.redo()) document.redo();
}

/** Over the stage picture's upper left corner. */
export function StepPills() {
  const { undo, redo, takeBack: back, doAgain: again } = useSteps();
  const theme = useStageTheme();
  const { flat } = useMedia();
  if (!undo && !redo) return null;
  return (
    <Row position="absolute" left={6} top={0} theme={theme} maxWidth="52%">
      {/* A narrow stage has no room for the words beside its pill. */}
      <Pill
        label={undo ? WORDS.undoNamed(undo) : WORDS.undo}
        off={!undo}
        onPress={back}
        words={flat ? undefined : undo}
      >
        <Undo2 size={16} color="#f3edf7" aria-hidden />
      </Pill>
      {redo && (
        <Pill label={WORDS.redo(redo)} onPress={again}>
          <Redo2 size={16} color="#f3edf7" aria-hidden />
        </Pill>
      )}
    </Row>
  );
}

type PillProps = {
  readonly label: string;
  readonly words?: string | undefined;
  readonly off?: boolean;
  readonly onPress: () => void;
  readonly children: React.ReactNode;
};

function Pill({ label, words, off = false, onPress, children }: PillProps) {
  return (
    <View
      render="button"
      aria-label={label}
      aria-disabled={off || undefined}
      onPress={off ? undefined : onPress}
      height={44}
      minWidth={44}
      paddingHorizontal={4}
      justifyContent="center"
      alignItems="center"
      backgroundColor="transparent"
      borderWidth={0}
      cursor="pointer"
      opacity={off ? 0.4 : 1}
      flexShrink={1}
    >
      <Row
        height={28}
        gap={6}
        paddingHorizontal={9}
        borderRadius={14}
        backgroundColor="rgba(11,9,15,0.72)"
        maxWidth="100%"
      >
        {children}
        {words && (
          <Words fontSize={12} lineHeight={16} color="$text" numberOfLines={1}>
            {words}
          </Words>
        )}
      </Row>
    </View>
  );
}
