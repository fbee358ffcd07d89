import { Button, Row } from '../../ui/pieces';

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
      <Button onPress={() => onSwitch(!on)}>{on ? 'Switch off' : 'Switch on'}</Button>
      <Button kind="quiet" onPress={onRemove}>
        {`Remove ${what}`}
      </Button>
    </Row>
  );
}
