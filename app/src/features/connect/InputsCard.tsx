// Light from a desk or another program: what is let in, and who controls the universe.

import Plus from 'lucide-react-native/icons/plus';
import { type InputRow, type Status } from '@hovlix/core/connect';
import { id, universe } from '@hovlix/core/units';
import { freshId } from '../../host/fresh-id';
import { useHovlix, useConnections } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { Card, State, type Tone } from '../../ui/card';
import { Labelled, Typed, wholeNumber } from '../../ui/form';
import { usePalette } from '../../ui/palette';
import { Button, ButtonText, Column, Quiet, Row, Words } from '../../ui/pieces';
import { Segments } from '../../ui/Segments';
import { Sheet } from '../../ui/Sheet';
import { SheetFoot } from './SheetFoot';
import { WORDS } from './words';

export const MERGE_WORDS = {
  highest: WORDS.higherLevelWins,
  'takes-over': WORDS.takesOverWhile,
  backup: WORDS.usedOnlyWhile,
} as const;

type Props = { readonly status: Status; readonly onEdit: (input: string) => void };

export function InputsCard({ status, onEdit }: Props) {
  const app = useHovlix();
  const palette = usePalette();
  const connections = useConnections((state) => state.connections);
  if (!connections) return null;
  const add = () => {
    const row: InputRow = {
      id: id<'Input'>(freshId()),
      universe: universe(1),
      on: true,
      protocol: 'sacn',
      number: 1,
      merge: 'highest',
    };
    app.connections.make({ type: 'put-input', row });
    onEdit(row.id);
  };
  return (
    <Card
      title={WORDS.incomingDmx}
      action={
        <Button onPress={add}>
          <Plus size={18} color={palette.text} aria-hidden />
          <ButtonText kind="plain">{WORDS.addInput}</ButtonText>
        </Button>
      }
    >
      {connections.inputs.length === 0 && <Quiet>{WORDS.deskOrAnother}</Quiet>}
      {connections.inputs.map((row) => (
        <InputLine key={row.id} row={row} status={status} onEdit={onEdit} />
      ))}
      {status.input?.deaf.map((line) => (
        <Words key={line} color="$fault">
          {line}
        </Words>
      ))}
    </Card>
  );
}

function InputLine({ row, status, onEdit }: { readonly row: InputRow } & Props) {
  const sources = status.input?.rows.find((one) => one.id === row.id)?.sources ?? [];
  const winner = status.output?.winners.find((one) => one.universe === row.universe)?.winner ?? 'ours';
  const [tone, word]: [Tone, string] = !row.on
    ? ['$faint', 'Off']
    : sources.length === 0
      ? ['$warn', WORDS.nothingReceived]
      : winner === 'ours'
        ? ['$live', WORDS.hovlixInControl]
        : winner === 'theirs'
          ? ['$live', WORDS.otherSourceControl]
          : ['$live', WORDS.bothHigherLevel];
  return (
    <Row gap={12} alignItems="flex-start" justifyContent="space-between">
      <State colour={tone} word={WORDS.universe(row.universe, word)}>
        <Quiet>{WORDS.number(row.protocol === 'sacn' ? 'sACN' : 'Art-Net', row.number, MERGE_WORDS[row.merge])}</Quiet>
        {sources.map((source) => (
          <Quiet key={source.name} color={source.wins ? '$text' : '$quiet'}>
            {source.name}
            {source.priority === null ? '' : WORDS.priority(source.priority)}
            {source.wins ? ' · heard' : ' · outranked'}
          </Quiet>
        ))}
      </State>
      <Button onPress={() => onEdit(row.id)} label={WORDS.changeInputUniverse(row.universe)}>
        {WORDS.change}
      </Button>
    </Row>
  );
}

export function InputSheet({ input, onClose }: { readonly input: string; readonly onClose: () => void }) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const row = useConnections((state) => state.connections?.inputs.find((one) => one.id === input));
  if (!row) return null;
  const put = (change: Partial<InputRow>) => app.connections.make({ type: 'put-input', row: { ...row, ...change } });
  return (
    <Sheet title={WORDS.incomingDmx} onClose={onClose}>
      <Labelled label={WORDS.arrivesAs}>
        <Segments
          label={WORDS.arrivesAs}
          value={row.protocol}
          choices={[
            { value: 'sacn', name: 'sACN' },
            { value: 'artnet', name: 'Art-Net' },
          ]}
          onChoose={(protocol) => put({ protocol, number: protocol === 'sacn' ? row.universe : row.universe - 1 })}
        />
      </Labelled>
      <Row gap={12} alignItems="flex-start">
        <Column flex={1}>
          <Typed
            label={WORDS.numberWire}
            patient
            numeric
            value={row.number}
            hint={row.protocol === 'sacn' ? WORDS.countedFrom0(row.number - 1) : WORDS.countedFrom1(row.number + 1)}
            read={row.protocol === 'sacn' ? wholeNumber(1, 63999) : wholeNumber(0, 32767)}
            onChange={(number) => put({ number })}
          />
        </Column>
        <Column flex={1}>
          <Typed
            label={WORDS.hovlixUniverse}
            patient
            numeric
            value={row.universe as number}
            read={wholeNumber(1, 63999)}
            onChange={(number) => put({ universe: universe(number) })}
          />
        </Column>
      </Row>
      <Labelled label={WORDS.howCombinesOurs} hint={MERGE_WORDS[row.merge]}>
        <Segments
          label={WORDS.howCombinesOurs}
          value={row.merge}
          choices={[
            { value: 'highest', name: WORDS.higherWins },
            { value: 'takes-over', name: WORDS.takesOver },
            { value: 'backup', name: WORDS.backup },
          ]}
          onChoose={(merge) => put({ merge })}
        />
      </Labelled>
      <SheetFoot
        on={row.on}
        what="input"
        onSwitch={(on) => put({ on })}
        onRemove={() => {
          app.connections.make({ type: 'remove-input', input: row.id });
          say(WORDS.inputGone, { undo: app.connections.takingBack() });
          onClose();
        }}
      />
    </Sheet>
  );
}
