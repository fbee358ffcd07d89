// Attributes that have no control of their own: by the names of their ranges, or as a part of their channel.

import { View } from '@tamagui/core';
import type { Setting } from '@hovlix/core/light';
import { RANGE_UNITS, type Range } from '@hovlix/core/rig';
import { Chip } from '../../../ui/Chip';
import { Column, Row, Words } from '../../../ui/pieces';
import { Slider } from '../../../ui/Slider';
import type { Own } from './model';
import type { PanelProps } from './panel-props';
import { WORDS } from './words';

/** Attributes by the names of their ranges, or as a part of their whole channel. */
export function Owns({ own, ...props }: PanelProps & { readonly own: readonly Own[] }) {
  return own.map((one) => <OwnForm key={one.attribute} {...props} own={one} />);
}

function OwnForm({ own, lamps, heard, onSay }: PanelProps & { readonly own: Own }) {
  const drive = heard.more?.[own.attribute];
  const setting = drive?.type === 'hold' ? drive.value : undefined;
  const say = (value: Setting | undefined) =>
    onSay({ more: { [own.attribute]: value === undefined ? undefined : { type: 'hold', value } } }, own.attribute);
  const chosen = own.ranges.find(({ name, range }) => isThis(setting, name, range));
  const span = chosen?.range;
  const unit = span ? RANGE_UNITS[span.does] : undefined;
  const title = own.lamps < lamps.length ? WORDS.ofLamps(own.name, own.lamps, lamps.length) : own.name;
  return (
    <Column gap={10} role="group" aria-label={own.name}>
      <Row gap={8} justifyContent="space-between">
        {own.ranges.length > 0 && <Words fontWeight="600">{title}</Words>}
        {drive && (
          <Chip
            small
            name={WORDS.leaveAlone}
            label={WORDS.leaveAlone3(own.name.toLowerCase())}
            on={false}
            onPress={() => say(undefined)}
          />
        )}
      </Row>
      {own.ranges.length > 0 && (
        <Row gap={6} flexWrap="wrap">
          {own.ranges.map(({ name, setting: named, hex }) => (
            <Chip
              key={name}
              small
              name={name}
              on={chosen?.name === name}
              picture={hex && <View width={20} height={20} borderRadius={10} backgroundColor={hex} aria-hidden />}
              onPress={() => say(named)}
            />
          ))}
        </Row>
      )}
      {span && unit && span.low !== undefined && span.high !== undefined && (
        <Slider
          label={`${own.name}: ${chosen.name}`}
          value={setting && typeof setting === 'object' && 'does' in setting ? (setting.at ?? span.low) : span.low}
          low={Math.min(span.low, span.high)}
          high={Math.max(span.low, span.high)}
          step={1}
          unit={unit}
          digits={1}
          onChange={(at) => say({ does: span.does, at, ...(span.slot === undefined ? {} : { slot: span.slot }) })}
        />
      )}
      {(own.ranges.length === 0 || typeof setting === 'number') && (
        <Slider
          label={own.ranges.length === 0 ? title : WORDS.wholeChannel(own.name)}
          value={typeof setting === 'number' ? setting * 100 : 0}
          low={0}
          high={100}
          step={1}
          unit="%"
          onChange={(value) => say(value / 100)}
        />
      )}
    </Column>
  );
}

function isThis(setting: Setting | undefined, name: string, { does, slot }: Range): boolean {
  if (setting === undefined || typeof setting === 'number') return false;
  if ('range' in setting) return setting.range.toLowerCase() === name.toLowerCase();
  return setting.does === does && setting.slot === slot;
}
