// A value with a button on each side: a step less, a step more.

import Minus from 'lucide-react-native/icons/minus';
import Plus from 'lucide-react-native/icons/plus';
import { usePalette } from './palette';
import { Button, Column, Figures, Quiet, Row } from './pieces';

type Props = {
  readonly name: string;
  readonly value: string;
  /** What the buttons are called for those who cannot see them. */
  readonly less: string;
  readonly more: string;
  /** Left out where there is no further step. */
  readonly onLess: (() => void) | undefined;
  readonly onMore: (() => void) | undefined;
};

export function Stepper({ name, value, less, more, onLess, onMore }: Props) {
  const palette = usePalette();
  return (
    <Row
      flexGrow={1}
      minWidth={156}
      justifyContent="space-between"
      backgroundColor="$well"
      borderRadius={22}
      role="group"
      aria-label={name}
    >
      <Button label={less} kind="quiet" disabled={!onLess} {...(onLess ? { onPress: onLess } : {})}>
        <Minus size={20} color={palette.text} aria-hidden />
      </Button>
      <Column alignItems="center">
        <Quiet fontSize={12} lineHeight={14}>
          {name}
        </Quiet>
        <Figures color="$text" lineHeight={16}>
          {value}
        </Figures>
      </Column>
      <Button label={more} kind="quiet" disabled={!onMore} {...(onMore ? { onPress: onMore } : {})}>
        <Plus size={20} color={palette.text} aria-hidden />
      </Button>
    </Row>
  );
}
