// Paste the manual's chart: the text becomes channels and ranges in one step, and what was not understood is listed.

import { useMemo, useState } from 'react';
import { nameOfChannel, readChart, type Chart } from '@hovlix/core/rig';
import { TextArea } from '../../../ui/inputs';
import { Button, Column, Figures, Quiet, Row, Words } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { rangeCount } from './model';
import { WORDS } from './words';

type Props = {
  readonly title: string;
  readonly onUse: (chart: Chart) => void;
  readonly onClose: () => void;
};

const EXAMPLE =
  '1 Pan\n2 Pan fine\n3 Tilt\n4 Dimmer\n5 Shutter\n   0-9 closed\n   10-199 strobe slow-fast\n   200-255 open';

export function ChartSheet({ title, onUse, onClose }: Props) {
  const [text, setText] = useState('');
  const chart = useMemo(() => readChart(text), [text]);
  const count = chart.channels.length;
  return (
    <Sheet title={title} onClose={onClose}>
      <Quiet>{WORDS.copyChannelTable}</Quiet>
      <TextArea aria-label={WORDS.theManualsChart} value={text} placeholder={EXAMPLE} onChange={setText} rows={9} />
      {text.trim() !== '' && count === 0 && <Words color="$warn">{WORDS.noChannelWas}</Words>}
      {count > 0 && (
        <Column>
          {chart.channels.map((channel) => {
            const open = chart.unsettled.filter((one) => channel.at.includes(one.channel ?? -1)).length;
            return (
              <Row key={channel.at.join('+')} gap={10} minHeight={32} borderBottomWidth={1} borderColor="$line">
                <Figures width={48}>{channel.at.join('+')}</Figures>
                <Words flex={1}>{nameOfChannel(channel)}</Words>
                <Quiet color={open > 0 ? '$warn' : '$quiet'}>
                  {open > 0 ? 'to settle' : channel.ranges.length > 0 ? rangeCount(channel) : ''}
                </Quiet>
              </Row>
            );
          })}
        </Column>
      )}
      {chart.unsettled.length > 0 && (
        <Column gap={4}>
          <Words fontWeight="600" color="$warn">
            {chart.unsettled.length === 1 ? WORDS.oneThingSettle : WORDS.thingsToSettle(chart.unsettled.length)}
          </Words>
          {chart.unsettled.slice(0, 12).map((one, i) => (
            <Quiet key={i}>{WORDS.line(one.line, one.text.slice(0, 60), one.why)}</Quiet>
          ))}
          {chart.unsettled.length > 12 && <Quiet>{WORDS.andMore(chart.unsettled.length - 12)}</Quiet>}
        </Column>
      )}
      <Row>
        <Button kind="primary" disabled={count === 0} onPress={() => onUse(chart)}>
          {count === 0 ? WORDS.takeIt : WORDS.takeTheseChannels(count)}
        </Button>
      </Row>
    </Sheet>
  );
}
