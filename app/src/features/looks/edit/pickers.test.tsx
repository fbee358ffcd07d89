import { useState } from 'react';
import { TamaguiProvider } from '@tamagui/core';
import { fireEvent, render, screen } from '@testing-library/react';
import { chromaticityFromHue, hueFromChromaticity, type Chromaticity } from '@hovlix/core/colour';
import { config } from '../../../ui/tamagui.config';
import { Bounds } from './Bounds';
import { Picker } from './ColourPanel';
import { drawnTo } from './DrawnShape';

type Moving = Parameters<typeof Bounds>[0]['moving'];

function shown(Kept: () => React.ReactNode) {
  render(
    <TamaguiProvider config={config} defaultTheme="dark">
      <Kept />
    </TamaguiProvider>,
  );
}
const press = (fader: string, key: string) => fireEvent.keyDown(screen.getByRole('slider', { name: fader }), { key });
const stands = (fader: string) => Number(screen.getByRole('slider', { name: fader }).getAttribute('aria-valuenow'));

describe('a colour', () => {
  let value: Chromaticity;
  const picker = (first: Chromaticity) =>
    shown(function Kept() {
      const [now, setNow] = useState(first);
      value = now;
      return <Picker title="Colour" value={now} onChange={setNow} />;
    });

  test('that is made white and saturated again has the hue it had', () => {
    picker(chromaticityFromHue(210, 0.8));
    press('Colour: saturation', 'Home');
    expect(stands('Colour: saturation')).toBe(0);
    expect(stands('Colour: hue')).toBeCloseTo(210, 0);
    press('Colour: saturation', 'End');
    expect(hueFromChromaticity(value).hue).toBeCloseTo(210, 0);
  });

  test('that is pale goes round the hues by the smallest steps', () => {
    picker(chromaticityFromHue(0, 0.06));
    const from = stands('Colour: hue');
    const thumb = screen.getByRole('slider', { name: 'Colour: hue' });
    for (let i = 0; i < 20; i++) fireEvent.keyDown(thumb, { key: 'ArrowRight', shiftKey: true });
    expect(stands('Colour: hue')).toBeCloseTo(from + 10, 5);
  });
});

test('the centre of a range goes to its ends and back with the size it has', () => {
  let value: Moving;
  shown(function Kept() {
    const [now, setNow] = useState<Moving>({ on: 'level', low: 0.25, high: 0.75, blend: 'replace' });
    value = now;
    return <Bounds moving={now} onChange={setNow} names={['Low', 'High', 'Upside down']} />;
  });
  fireEvent.click(screen.getByRole('button', { name: 'Centre and size' }));
  press('Centre', 'End');
  expect(value!).toMatchObject({ low: 0.5, high: 1 });
  press('Centre', 'Home');
  expect(value!).toMatchObject({ low: 0, high: 0.5 });
  press('Size', 'End');
  expect(value!).toMatchObject({ low: 0, high: 1 });
});

test('a shape drawn quickly has no gaps: what lies between two places the finger was heard at is on its line', () => {
  const flat = [0, 0, 0, 0, 0, 0];
  expect(drawnTo(flat, { place: 1, height: 0.2 }, { place: 4, height: 0.8 })).toEqual([0, 0.2, 0.4, 0.6, 0.8, 0]);
  expect(drawnTo(flat, { place: 4, height: 1 }, { place: 2, height: 0 })).toEqual([0, 0, 0, 0.5, 1, 0]);
  expect(drawnTo(flat, { place: 3, height: 0.7 }, { place: 3, height: 0.4 })).toEqual([0, 0, 0, 0.4, 0, 0]);
});
