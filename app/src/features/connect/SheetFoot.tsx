import { Button, Row } from '../../ui/pieces';
import { WORDS } from './words';

type Props = {
  readonly on: boolean;
  readonly what: 'output' | 'input';
  readonly onSwitch: (on: boolean) => void;
  readonly onRemove: () => void;
};

/** What every row's sheet ends with. */
export function SheetFoot({ on, what, onSwitch, onRemove }: Props) {
  return (
    <Row justifyContent="space-between" gap={12}>
      <Button onPress={() => onSwitch(!on)}>{on ? WORDS.switchOff : WORDS.switchOn}</Button>
      <Button kind="quiet" onPress={onRemove}>
        {WORDS.remove(what)}
      </Button>
    </Row>
  );
}
