// The table of outputs: one row each, with its state in a word and a colour.

import { View } from '@tamagui/core';
import Plus from 'lucide-react-native/icons/plus';
import { rowInWords, wayInWords, type OutputRow, type Status } from '@hovlix/core/connect';
import { id, universe } from '@hovlix/core/units';
import { freshId } from '../../host/fresh-id';
import { useHovlix, useConnections, useShow } from '../../host/hovlix';
import { Card, State } from '../../ui/card';
import { usePalette } from '../../ui/palette';
import { Button, ButtonText, Column, Figures, Quiet, Row, Words } from '../../ui/pieces';
import { stateOf, twins, unsent } from './model';
import { WORDS, forHowLong } from './words';

type Props = {
  readonly status: Status;
  /** When the status was asked, ms since 1970. */
  readonly at: number;
  readonly onEdit: (output: string) => void;
};

export function OutputsCard({ status, at, onEdit }: Props) {
  const app = useHovlix();
  const palette = usePalette();
  const connections = useConnections((state) => state.connections);
  const show = useShow((one) => one);
  if (!connections) return null;
  const doubled = twins(connections.outputs);
  const missing = show ? unsent(show, connections.outputs) : [];
  const add = (number: number) => {
    const like = connections.outputs.at(-1)?.way;
    const way: OutputRow['way'] =
      like && like.protocol !== 'serial'
        ? { ...like, number: like.protocol === 'sacn' ? number : number - 1 }
        : { protocol: 'sacn', to: 'multicast', network: null, number, priority: 100 };
    const row: OutputRow = { id: id<'Output'>(freshId()), universe: universe(number), on: true, delayMs: 0, way };
    app.connections.make({ type: 'put-output', row });
    onEdit(row.id);
  };
  const next = Math.min(63999, Math.max(0, ...connections.outputs.map((row) => row.universe as number)) + 1);
  return (
    <Card
      title={WORDS.outputs}
      action={
        <Button onPress={() => add(next)}>
          <Plus size={18} color={palette.text} aria-hidden />
          <ButtonText kind="plain">{WORDS.addOutput}</ButtonText>
        </Button>
      }
    >
      {connections.outputs.length === 0 && <Words>{WORDS.nothingSentAnywhere}</Words>}
      <Column gap={4}>
        {connections.outputs.map((row) => (
          <OutputLine
            key={row.id}
            row={row}
            status={status}
            at={at}
            doubled={doubled.includes(row.id)}
            onEdit={onEdit}
          />
        ))}
      </Column>
      {missing.map((number) => (
        <Row key={number} gap={12} justifyContent="space-between" flexWrap="wrap">
          <Words color="$warn" flex={1} minWidth={180}>
            {WORDS.lampsUseUniverse(number)}
          </Words>
          <Button onPress={() => add(number)}>{WORDS.sendUniverse(number)}</Button>
        </Row>
      ))}
    </Card>
  );
}

type LineProps = Props & {
  readonly row: OutputRow;
  readonly doubled: boolean;
};

function OutputLine({ row, status, at, doubled, onEdit }: LineProps) {
  const report = status.output?.rows.find((one) => one.id === row.id);
  const { word, tone, why } = stateOf(row, report);
  return (
    <View
      render="button"
      aria-label={`${rowInWords(row)}, ${word}`}
      testID="output-row"
      onPress={() => onEdit(row.id)}
      flexDirection="row"
      alignItems="flex-start"
      gap={12}
      padding={12}
      marginHorizontal={-8}
      borderRadius={12}
      borderWidth={0}
      backgroundColor="transparent"
      hoverStyle={{ backgroundColor: '$well' }}
      pressStyle={{ backgroundColor: '$well' }}
      cursor="pointer"
    >
      <Column width={52} flexShrink={0} alignItems="flex-start">
        <Figures fontSize={26} lineHeight={30} fontWeight="600" color="$text">
          {row.universe}
        </Figures>
        <Quiet fontSize={12}>{WORDS.universe3}</Quiet>
      </Column>
      <Column flex={1} minWidth={0} gap={2}>
        <Words fontWeight="600" textAlign="left">
          {wayInWords(row.way)}
        </Words>
        <Quiet textAlign="left">{wireWords(row)}</Quiet>
        <State colour={tone} word={report && row.on ? `${word} ${forHowLong(report.since, at)}` : word}>
          {why && row.on && <Quiet textAlign="left">{why}</Quiet>}
          {doubled && (
            <Quiet color="$warn" textAlign="left">
              {WORDS.anotherOutputSends}
            </Quiet>
          )}
        </State>
      </Column>
      <Column alignItems="flex-end" flexShrink={0}>
        <Figures fontSize={15} color="$text">
          {report ? Math.round(report.packetsPerSecond) : 0}/s
        </Figures>
      </Column>
    </View>
  );
}

/** The number on the wire, and what is out of the ordinary. */
function wireWords(row: OutputRow): string {
  const { way } = row;
  const words =
    way.protocol === 'serial'
      ? [way.kind === 'plain' ? 'plain adapter' : 'framed interface']
      : [
          way.protocol === 'sacn'
            ? WORDS.numberOrCounted(way.number, way.number - 1)
            : WORDS.numberOrCountedFrom(way.number, way.number + 1),
          ...(way.network === null ? [] : [way.network]),
          ...(way.protocol === 'sacn' && way.priority !== 100 ? [WORDS.priority3(way.priority)] : []),
        ];
  if (row.delayMs !== 0) words.push(row.delayMs > 0 ? WORDS.msLater(row.delayMs) : WORDS.msEarlier(-row.delayMs));
  return words.join(' · ');
}
