// From where to where a number is moved, in its own unit, and how it meets the value below.

import { useState } from 'react';
import { WAVE_UNITS } from '@hovlix/core/light';
import { clamp } from '@hovlix/core/units';
import { Quiet } from '../../../ui/pieces';
import { Segments } from '../../../ui/Segments';
import { Slider } from '../../../ui/Slider';
import { WORDS } from './words';

type Moving = {
  readonly on: string;
  readonly low: number;
  readonly high: number;
  readonly blend: 'replace' | 'add';
};

type Props<T extends Moving> = {
  readonly moving: T;
  readonly onChange: (moving: T) => void;
  /** What low and high are called, and what is said where low lies above high. */
  readonly names: readonly [low: string, high: string, upsideDown: string];
};

export function Bounds<T extends Moving>({ moving, onChange, names: [low, high, upsideDown] }: Props<T>) {
  const known = Object.hasOwn(WAVE_UNITS, moving.on)
    ? WAVE_UNITS[moving.on as keyof typeof WAVE_UNITS]
    : { low: 0, high: 1, unit: '%' };
  const scale = known.unit === '%' ? 100 : 1;
  const [how, setHow] = useState<'ends' | 'middle'>('ends');
  const add = moving.blend === 'add';
  const bound = (label: string, key: 'low' | 'high') => (
    <Slider
      label={label}
      value={moving[key] * scale}
      low={(add && known.low === 0 ? -known.high : known.low) * scale}
      high={known.high * scale}
      step={known.unit === 'Hz' ? 0.5 : 1}
      digits={known.unit === 'Hz' ? 1 : 0}
      unit={known.unit}
      onChange={(value) => onChange({ ...moving, [key]: value / scale })}
    />
  );
  const [centre, size] = [(moving.low + moving.high) / 2, moving.high - moving.low];
  const least = add && known.low === 0 ? -known.high : known.low;
  // Near an end the centre gives way: a size that did would be lost on the way there and back.
  const around = (wanted: number, wide: number) => {
    const middle = clamp(wanted, least + Math.abs(wide) / 2, known.high - Math.abs(wide) / 2);
    const held = (value: number) => clamp(value, least, known.high);
    onChange({ ...moving, low: held(middle - wide / 2), high: held(middle + wide / 2) });
  };
  const unit = { step: known.unit === 'Hz' ? 0.5 : 1, digits: known.unit === 'Hz' ? 1 : 0, unit: known.unit };
  return (
    <>
      <Segments
        label={WORDS.setRangeBy}
        titled
        value={how}
        choices={[
          { value: 'ends', name: WORDS.and(low, high.toLowerCase()) },
          { value: 'middle', name: WORDS.centreAndSize },
        ]}
        onChoose={setHow}
      />
      {how === 'ends' ? (
        <>
          {bound(low, 'low')}
          {bound(high, 'high')}
        </>
      ) : (
        <>
          <Slider
            label={WORDS.centre}
            value={centre * scale}
            low={least * scale}
            high={known.high * scale}
            {...unit}
            onChange={(value) => around(value / scale, size)}
          />
          <Slider
            label={WORDS.size}
            value={size * scale}
            low={-(known.high - least) * scale}
            high={(known.high - least) * scale}
            {...unit}
            onChange={(value) => around(centre, value / scale)}
          />
        </>
      )}
      {moving.low > moving.high && <Quiet>{upsideDown}</Quiet>}
      {moving.on !== 'pan' && moving.on !== 'tilt' && moving.on !== 'hue' && (
        <Segments
          label={WORDS.howItCombines}
          titled
          value={moving.blend}
          choices={[
            { value: 'replace', name: WORDS.replacesIt },
            { value: 'add', name: WORDS.addedToIt },
          ]}
          onChoose={(blend) => onChange({ ...moving, blend })}
        />
      )}
    </>
  );
}
