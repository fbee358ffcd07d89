// Several steps at once: times, copies, out they go.

import X from 'lucide-react-native/icons/x';
import { counted } from '@hovlix/core/counted';
import type { Chase, Step } from '@hovlix/core/light';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Pair, decimal, Typed } from '../../../ui/form';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Row, Words } from '../../../ui/pieces';
import { WORDS } from './words';

type Props = {
  readonly chase: Chase;
  readonly picked: readonly Step[];
  readonly onPut: (chase: Chase) => void;
  readonly onCopy: () => void;
  /** Steps are to be added, with so many of the chase before them. */
  readonly onAdd: (before: number) => void;
  readonly onFaders: () => void;
  readonly onClear: () => void;
};

export function ManySteps({ chase, picked, onPut, onCopy, onAdd, onFaders, onClear }: Props) {
  const app = useHovlix();
  const palette = usePalette();
  const say = useSession((session) => session.say);
  const ids = new Set<string>(picked.map(({ id }) => id));
  const change = (step: (one: Step) => Partial<Step>) =>
    onPut({ ...chase, steps: chase.steps.map((one) => (ids.has(one.id) ? { ...one, ...step(one) } : one)) });
  const scale = (factor: number) =>
    change((one) => ({ fade: Math.min(4096, one.fade * factor), hold: Math.min(4096, one.hold * factor) }));
  const remove = () => {
    onPut({ ...chase, steps: chase.steps.filter((one) => !ids.has(one.id)) });
    say(WORDS.gone(counted(picked.length, 'step'), picked.length === 1 ? 'is' : 'are'), {
      undo: app.document.takingBack(),
    });
    onClear();
  };
  // One step has its times in its own row.
  const many = picked.length > 1;
  const unit = chase.pace === 'seconds' ? 's' : 'beats';
  // At the foot of the screen: the steps stay where they are, under the finger that chooses them.
  return (
    <Column
      padding={14}
      paddingTop={6}
      gap={10}
      borderRadius={14}
      backgroundColor="$raised"
      borderWidth={1}
      borderColor="$line"
      {...{ position: 'sticky', bottom: 8 }}
      zIndex={2}
      role="region"
      aria-label={WORDS.chosenSteps}
    >
      <Row justifyContent="space-between">
        <Words fontWeight="600">{WORDS.chosen(counted(picked.length, 'step'))}</Words>
        <Button label={WORDS.clearSelection} kind="quiet" onPress={onClear}>
          <X size={20} color={palette.text} aria-hidden />
        </Button>
      </Row>
      {many && (
        <Pair>
          <Typed
            label={WORDS.allFade(unit)}
            value={picked[0]!.fade}
            read={decimal(0, 4096)}
            onChange={(fade) => change(() => ({ fade }))}
          />
          <Typed
            label={WORDS.allHold(unit)}
            value={picked[0]!.hold}
            read={decimal(0, 4096)}
            onChange={(hold) => change(() => ({ hold }))}
          />
        </Pair>
      )}
      <Row gap={6} flexWrap="wrap">
        {many && <Button onPress={() => scale(0.5)}>{WORDS.halfAsLong}</Button>}
        {many && <Button onPress={() => scale(2)}>{WORDS.twiceAsLong}</Button>}
        <Button onPress={() => onAdd(chase.steps.indexOf(picked[0]!))}>{WORDS.addBefore}</Button>
        <Button onPress={() => onAdd(chase.steps.indexOf(picked.at(-1)!) + 1)}>{WORDS.addAfter}</Button>
        <Button onPress={onFaders}>{WORDS.faders}</Button>
        <Button onPress={onCopy}>{WORDS.copy}</Button>
        <Button onPress={remove}>{WORDS.delete}</Button>
      </Row>
    </Column>
  );
}
