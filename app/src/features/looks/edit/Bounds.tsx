// From where to where a number is moved, in its own unit, and how it meets the value below.

import { WAVE_UNITS } from '@hovlix/core/light';
import { Quiet } from '../../../ui/pieces';
import { Segments } from '../../../ui/Segments';
import { Slider } from '../../../ui/Slider';

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
  const known =
    moving.on in WAVE_UNITS ? WAVE_UNITS[moving.on as keyof typeof WAVE_UNITS] : { low: 0, high: 1, unit: '%' };
  const scale = known.unit === '%' ? 100 : 1;
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
  return (
    <>
      {bound(low, 'low')}
      {bound(high, 'high')}
      {moving.low > moving.high && <Quiet>{upsideDown}</Quiet>}
      {moving.on !== 'pan' && moving.on !== 'tilt' && moving.on !== 'hue' && (
        <Segments
          label="How it meets the value"
          value={moving.blend}
          choices={[
            { value: 'replace', name: 'In place of it' },
            { value: 'add', name: 'Added to it' },
          ]}
          onChoose={(blend) => onChange({ ...moving, blend })}
        />
      )}
    </>
  );
}
