// One channel of a type: what it does, where it lies, its values, its ranges, and the lamp answering as one tries it.

import {
  attributeOf,
  DOES,
  RANGE_UNITS,
  snaps,
  testValue,
  type Channel,
  type Patched,
  type Range,
} from '@hovlix/core/rig';
import { Choose, decimal, remark, Typed, wholeNumber } from '../../../ui/form';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { Segments } from '../../../ui/Segments';
import { Sheet } from '../../../ui/Sheet';
import { Switch } from '../../../ui/Switch';
import { AttributeSearch } from './AttributeSearch';
import { LiveChannel } from './LiveChannel';
import { useBytes } from './use-bytes';
import { WORDS } from './words';

type Props = {
  readonly channel: Channel;
  /** A lamp of this type and mode to try it on. */
  readonly lamp: Patched | undefined;
  readonly onPut: (channel: Channel) => void;
  readonly onRemove: () => void;
  readonly onUnpair: () => void;
  readonly onClose: () => void;
};

export function ChannelSheet({ channel, lamp, onPut, onRemove, onUnpair, onClose }: Props) {
  const known = attributeOf(channel.attribute);
  const bytes = useBytes(lamp);
  const put = (change: Partial<Channel>) => onPut({ ...channel, ...change });
  const dims = channel.attribute === 'Dimmer' || channel.attribute.startsWith('ColorAdd_');
  return (
    <Sheet title={`${channel.at.join('+')} ${channel.name ?? known.name}`} onClose={onClose}>
      <Column gap={6}>
        <Words>
          {WORDS.does}{' '}
          <Words display="inline" fontWeight="700">
            {known.name}
          </Words>{' '}
          ({channel.attribute})
        </Words>
        <AttributeSearch label={WORDS.doesSomethingElse} onChoose={(attribute) => put({ attribute })} />
      </Column>
      <Row gap={12} alignItems="flex-start">
        <Column flex={2}>
          <Typed<string>
            label={WORDS.calledManual}
            value={channel.name ?? ''}
            read={remark(80)}
            onChange={(name) => put({ name: name || undefined })}
          />
        </Column>
        <Column flex={1}>
          <Typed<string>
            label={WORDS.placeCoarseFirst}
            value={channel.at.join('+')}
            read={places}
            patient
            onChange={(text) => put({ at: numbersIn(text) })}
          />
        </Column>
      </Row>
      {channel.at.length > 1 && (
        <Row>
          <Button kind="quiet" onPress={onUnpair}>
            {WORDS.takeItsBytes(channel.at.length)}
          </Button>
        </Row>
      )}
      {lamp ? (
        <Column gap={4}>
          <Quiet>{WORDS.answers(lamp.fixture.name)}</Quiet>
          <LiveChannel lamp={lamp} channel={channel} bytes={bytes} />
        </Column>
      ) : (
        <Quiet>{WORDS.addOneLamp}</Quiet>
      )}
      <Row gap={12} alignItems="flex-start">
        <Column flex={1}>
          <Value label={WORDS.default} value={channel.home} onChange={(home) => put({ home })} />
        </Column>
        <Column flex={1}>
          <Value label={WORDS.forATest} value={testValue(channel)} onChange={(test) => put({ test })} />
        </Column>
        <Column flex={1}>
          <Value label={WORDS.inBlackout} value={channel.dark ?? null} onChange={(dark) => put({ dark })} />
        </Column>
      </Row>
      <Segments
        label={WORDS.howItChanges}
        titled
        value={snaps(channel) ? 'snap' : 'fade'}
        choices={[
          { value: 'fade', name: WORDS.fades },
          { value: 'snap', name: WORDS.snaps },
        ]}
        onChoose={(way) => put({ snap: way === 'snap' })}
      />
      {dims && (
        <Switch
          label={WORDS.followsGrandMaster}
          on={channel.masters !== false}
          onChange={(on) => put({ masters: on ? undefined : false })}
        />
      )}
      <Ranges channel={channel} onPut={(ranges) => put({ ranges: [...ranges] })} />
      <Row>
        <Button kind="quiet" onPress={onRemove}>
          {WORDS.removeChannel}
        </Button>
      </Row>
    </Sheet>
  );
}

const numbersIn = (text: string) => (text.match(/\d+/g) ?? []).map(Number);

function places(text: string): { readonly value: string } | { readonly wrong: string } {
  const numbers = numbersIn(text);
  if (numbers.length < 1 || numbers.length > 3) return { wrong: WORDS.oneThreePlaces };
  if (numbers.some((place) => place < 1 || place > 512)) return { wrong: WORDS.placesGoFrom };
  return { value: numbers.join('+') };
}

type ValueProps = {
  readonly label: string;
  readonly value: number | null;
  readonly onChange: (value: number | null) => void;
};

/** A DMX value of 0 to 255, or “-” for leaving the channel alone. */
function Value({ label, value, onChange }: ValueProps) {
  return (
    <Typed<string>
      label={label}
      value={value === null ? '-' : String(Math.round(value * 255))}
      hint={value === null ? 'left alone' : '0 to 255, or -'}
      read={(text) => {
        if (/^[-–−]?$/.test(text.trim())) return { value: '-' };
        const read = wholeNumber(0, 255)(text);
        return 'value' in read ? { value: String(read.value) } : read;
      }}
      onChange={(text) => onChange(text === '-' ? null : Number(text) / 255)}
    />
  );
}

function Ranges({ channel, onPut }: { readonly channel: Channel; readonly onPut: (ranges: readonly Range[]) => void }) {
  const { ranges } = channel;
  const put = (i: number, change: Partial<Range>) =>
    onPut(ranges.map((range, k) => (k === i ? { ...range, ...change } : range)));
  const next = Math.min(
    255,
    ranges.reduce((most, { to }) => Math.max(most, to + 1), 0),
  );
  return (
    <Column gap={12}>
      <Quiet fontWeight="600">{WORDS.ranges}</Quiet>
      {ranges.map((range, i) => {
        const unit = RANGE_UNITS[range.does];
        return (
          <Column key={i} gap={8} paddingBottom={12} borderBottomWidth={1} borderColor="$line">
            <Row gap={8} alignItems="flex-start">
              <Column flex={1}>
                <Typed
                  label={WORDS.from}
                  numeric
                  value={range.from}
                  read={wholeNumber(0, 255)}
                  onChange={(from) => put(i, { from })}
                />
              </Column>
              <Column flex={1}>
                <Typed
                  label={WORDS.to}
                  numeric
                  value={range.to}
                  read={wholeNumber(0, 255)}
                  onChange={(to) => put(i, { to })}
                />
              </Column>
              <Column flex={2}>
                <Choose
                  label={WORDS.doesLabel}
                  value={range.does}
                  choices={DOES.map((does) => ({ value: does, name: does }))}
                  onChoose={(does) => put(i, { does: DOES.find((one) => one === does) ?? 'nothing' })}
                />
              </Column>
            </Row>
            <Row gap={8} alignItems="flex-end">
              <Column flex={2}>
                <Typed<string>
                  label={WORDS.called}
                  value={range.name ?? ''}
                  read={remark(80)}
                  onChange={(name) => put(i, { name: name || undefined })}
                />
              </Column>
              {range.does === 'slot' && (
                <Column flex={1}>
                  <Typed
                    label={WORDS.slot}
                    numeric
                    value={range.slot ?? 0}
                    read={wholeNumber(0, 63)}
                    onChange={(slot) => put(i, { slot })}
                  />
                </Column>
              )}
              {unit && (
                <>
                  <Column flex={1}>
                    <Typed
                      label={WORDS.fromNamed(unit)}
                      numeric
                      value={range.low ?? 0}
                      read={decimal(-10000, 10000)}
                      onChange={(low) => put(i, { low })}
                    />
                  </Column>
                  <Column flex={1}>
                    <Typed
                      label={WORDS.toNamed(unit)}
                      numeric
                      value={range.high ?? 0}
                      read={decimal(-10000, 10000)}
                      onChange={(high) => put(i, { high })}
                    />
                  </Column>
                </>
              )}
              {(range.does === 'reset' || range.does.startsWith('lamp')) && (
                <Column flex={1}>
                  <Typed
                    label={WORDS.heldS}
                    numeric
                    value={range.hold ?? 3}
                    read={decimal(0, 60)}
                    onChange={(hold) => put(i, { hold })}
                  />
                </Column>
              )}
              <Button
                label={WORDS.removeRangeTo(range.from, range.to)}
                kind="quiet"
                onPress={() => onPut(ranges.filter((_, k) => k !== i))}
              >
                ×
              </Button>
            </Row>
          </Column>
        );
      })}
      <Row>
        <Button
          onPress={() => onPut([...ranges, { from: next, to: 255, does: ranges.length === 0 ? 'level' : 'nothing' }])}
        >
          {WORDS.addRange}
        </Button>
      </Row>
    </Column>
  );
}
