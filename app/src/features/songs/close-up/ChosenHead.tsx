// Over what is chosen in Close-up: what it is, deleted or let go of with one press.

import type { ReactNode } from 'react';
import Trash from 'lucide-react-native/icons/trash';
import X from 'lucide-react-native/icons/x';
import { usePalette } from '../../../ui/palette';
import { Button, Row } from '../../../ui/pieces';
import { WORDS } from './words';

type Props = {
  /** What the one button says to those who do not see it: “Delete notes”. */
  readonly remove: string;
  readonly onRemove: () => void;
  readonly onDone: () => void;
  readonly children: ReactNode;
};

export function ChosenHead({ remove, onRemove, onDone, children }: Props) {
  const palette = usePalette();
  return (
    <Row gap={4} justifyContent="space-between">
      {children}
      <Row gap={4}>
        <Button label={remove} kind="quiet" onPress={onRemove}>
          <Trash size={20} color={palette.text} aria-hidden />
        </Button>
        <Button label={WORDS.clearSelection} kind="quiet" onPress={onDone}>
          <X size={20} color={palette.text} aria-hidden />
        </Button>
      </Row>
    </Row>
  );
}
