import { TamaguiProvider } from '@tamagui/core';
import { act, fireEvent, render, screen } from '@testing-library/react';
import type { ReactNode } from 'react';
import { Choose, Typed, wholeNumber } from './form';
import { Field } from './Field';
import { Hold } from './Hold';
import { Segments } from './Segments';
import { Slider } from './Slider';
import { config } from './tamagui.config';

const themed = (piece: ReactNode) => (
  <TamaguiProvider config={config} defaultTheme="dark">
    {piece}
  </TamaguiProvider>
);
const shown = (piece: ReactNode) => render(themed(piece));
const wait = (ms: number) => act(() => void jest.advanceTimersByTime(ms));

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

describe('a line to type in', () => {
  const typed = (onChange = jest.fn()) => {
    shown(<Typed label="Number" value={7} numeric read={wholeNumber(1, 300)} onChange={onChange} />);
    return { onChange, box: screen.getByLabelText<HTMLInputElement>('Number') };
  };

  test('a line in which half an answer would do harm waits for Enter or for being left', () => {
    const [onChange, onLeave] = [jest.fn(), jest.fn()];
    const read = (text: string) => ({ value: text });
    shown(<Typed label="Folder" value="" read={read} patient onChange={onChange} onLeave={onLeave} />);
    const box = screen.getByLabelText('Folder');
    fireEvent.change(box, { target: { value: 'Ver' } });
    wait(2000);
    expect(onChange).not.toHaveBeenCalled();
    fireEvent.change(box, { target: { value: 'Verses' } });
    fireEvent.keyDown(box, { key: 'Enter' });
    fireEvent.blur(box);
    expect(onChange.mock.calls).toEqual([['Verses']]);
    expect(onLeave).toHaveBeenCalledTimes(1);
  });

  test('what is half typed does not count: only a pause, Enter or leaving does', () => {
    const { onChange, box } = typed();
    fireEvent.change(box, { target: { value: '2' } });
    wait(300);
    fireEvent.change(box, { target: { value: '25' } });
    wait(300);
    fireEvent.change(box, { target: { value: '258' } });
    expect(onChange).not.toHaveBeenCalled();
    wait(600);
    expect(onChange.mock.calls).toEqual([[258]]);
    fireEvent.change(box, { target: { value: '12' } });
    fireEvent.keyDown(box, { key: 'Enter' });
    fireEvent.change(box, { target: { value: '13' } });
    fireEvent.blur(box);
    expect(onChange.mock.calls).toEqual([[258], [12], [13]]);
  });

  test('Enter is spent on the line: not on what has the focus once it has closed, nor while a letter is put together', () => {
    const onEnter = jest.fn();
    shown(<Field label="Name" value="" onChange={jest.fn()} onEnter={onEnter} />);
    const box = screen.getByLabelText('Name');
    fireEvent.keyDown(box, { key: 'Enter', isComposing: true });
    expect(onEnter).not.toHaveBeenCalled();
    const goesOn = fireEvent.keyDown(box, { key: 'Enter' });
    expect([goesOn, onEnter.mock.calls.length]).toEqual([false, 1]);
    // Held down, it is taken once, and spent all the same.
    expect([fireEvent.keyDown(box, { key: 'Enter', repeat: true }), onEnter.mock.calls.length]).toEqual([false, 1]);
    expect(fireEvent.keyDown(box, { key: 'Tab' })).toBe(true);
  });

  test.each(['', '0', '301', '2.5', 'seven'])('“%s” stays, says what is wanted, and changes nothing', (text) => {
    const { onChange, box } = typed();
    fireEvent.change(box, { target: { value: text } });
    wait(1000);
    fireEvent.blur(box);
    expect(onChange).not.toHaveBeenCalled();
    expect(box.value).toBe(text);
    expect(box.getAttribute('aria-invalid')).toBe('true');
    expect(screen.getByText('A whole number from 1 to 300.')).toBeTruthy();
  });
});

describe('a button that must be held', () => {
  test('a tap does nothing, nor does a press that slips off; held it acts once', () => {
    const held = jest.fn();
    shown(<Hold onHeld={held}>Hold to stop</Hold>);
    const button = screen.getByRole('button', { name: 'Hold to stop' });
    fireEvent.pointerDown(button);
    wait(300);
    fireEvent.pointerUp(button);
    wait(2000);
    fireEvent.pointerDown(button);
    wait(500);
    fireEvent.pointerCancel(button);
    wait(2000);
    expect(held).not.toHaveBeenCalled();
    fireEvent.pointerDown(button);
    wait(1000);
    fireEvent.pointerUp(button);
    expect(held).toHaveBeenCalledTimes(1);
  });

  test('the keyboard holds as well: a key kept down, its repeats ignored', () => {
    const held = jest.fn();
    shown(<Hold onHeld={held}>Hold to stop</Hold>);
    const button = screen.getByRole('button', { name: 'Hold to stop' });
    fireEvent.keyDown(button, { key: 'Enter' });
    wait(400);
    fireEvent.keyDown(button, { key: 'Enter', repeat: true });
    wait(400);
    fireEvent.keyUp(button, { key: 'Enter' });
    expect(held).toHaveBeenCalledTimes(1);
  });
});

test('one of a few, and one of many: what is chosen is told, what is gone is still shown', () => {
  const chosen = jest.fn();
  shown(
    <>
      <Segments
        label="Way"
        value="a"
        choices={[
          { value: 'a', name: 'Cable' },
          { value: 'b', name: 'Network' },
        ]}
        onChoose={chosen}
      />
      <Choose label="Port" value="/dev/gone" choices={[{ value: '/dev/here', name: 'Here' }]} onChoose={chosen} />
    </>,
  );
  expect(screen.getByRole('button', { name: 'Cable', pressed: true })).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Network' }));
  expect(screen.getByText('/dev/gone (not here)')).toBeTruthy();
  fireEvent.change(screen.getByLabelText('Port'), { target: { value: '/dev/here' } });
  expect(chosen.mock.calls).toEqual([['b'], ['/dev/here']]);
});

test('a line whose value another changes stands still while one is in it, and does not take that back', () => {
  const onChange = jest.fn();
  const line = (value: number) => (
    <Typed label="Tempo" value={value} numeric read={wholeNumber(20, 400)} onChange={onChange} />
  );
  const { rerender } = shown(line(120));
  const box = screen.getByLabelText<HTMLInputElement>('Tempo');
  fireEvent.focus(box);
  rerender(themed(line(121)));
  expect(box.value).toBe('120');
  fireEvent.blur(box);
  expect(box.value).toBe('121');
  expect(onChange).not.toHaveBeenCalled();
  fireEvent.focus(box);
  fireEvent.change(box, { target: { value: '90' } });
  fireEvent.keyDown(box, { key: 'Enter' });
  rerender(themed(line(95)));
  fireEvent.blur(box);
  expect(onChange.mock.calls).toEqual([[90]]);
});

describe('a fader', () => {
  const fader = (onChange = jest.fn()) => {
    shown(<Slider label="Level" value={40} low={0} high={100} step={1} unit="%" onChange={onChange} />);
    return {
      onChange,
      thumb: screen.getByRole('slider'),
      box: screen.getByLabelText<HTMLInputElement>('Level, typed'),
    };
  };

  test('arrows move it by a step, with Shift by a tenth; Home and End go to its ends', () => {
    const { onChange, thumb } = fader();
    for (const [key, shiftKey] of [
      ['ArrowRight', false],
      ['ArrowDown', false],
      ['ArrowRight', true],
      ['Home', false],
      ['End', false],
    ] as const)
      fireEvent.keyDown(thumb, { key, shiftKey });
    expect(onChange.mock.calls.map(([value]) => Math.round(value * 10) / 10)).toEqual([41, 39, 40.1, 0, 100]);
  });

  test('a figure is typed with a comma and its unit, is held at the ends, and what is none changes nothing', () => {
    const { onChange, box } = fader();
    const type = (text: string) => {
      fireEvent.change(box, { target: { value: text } });
      fireEvent.keyDown(box, { key: 'Enter' });
    };
    for (const text of ['12,5 %', '400', '−3', 'bright', '']) type(text);
    expect(onChange.mock.calls.map(([value]) => value)).toEqual([12.5, 100, 0]);
    expect(box.value).toBe('40');
  });

  test('longer than the track is typed, and the track reaches there until it is short again', () => {
    const onChange = jest.fn();
    const fader = (value: number) => (
      <Slider label="Falls in" value={value} low={0} high={2000} most={10000} step={10} unit="ms" onChange={onChange} />
    );
    const { rerender } = shown(fader(300));
    const thumb = screen.getByRole('slider');
    const box = screen.getByLabelText('Falls in, typed');
    for (const text of ['5000', '20000']) {
      fireEvent.change(box, { target: { value: text } });
      fireEvent.keyDown(box, { key: 'Enter' });
    }
    fireEvent.keyDown(thumb, { key: 'End' });
    expect(onChange.mock.calls).toEqual([[5000], [10000], [2000]]);
    rerender(themed(fader(5000)));
    fireEvent.keyDown(thumb, { key: 'End' });
    expect(onChange).toHaveBeenLastCalledWith(10000);
  });

  test('a figure that goes on by itself stands still while one is in it, and is no answer', () => {
    const onChange = jest.fn();
    const fader = (value: number) => (
      <Slider label="Position" value={value} low={0} high={100} step={1} unit="s" onChange={onChange} />
    );
    const { rerender } = shown(fader(5));
    const box = screen.getByLabelText<HTMLInputElement>('Position, typed');
    fireEvent.focus(box);
    rerender(themed(fader(6)));
    expect(box.value).toBe('5');
    fireEvent.keyDown(box, { key: 'Enter' });
    fireEvent.blur(box);
    expect(box.value).toBe('6');
    expect(onChange).not.toHaveBeenCalled();
    fireEvent.focus(box);
    fireEvent.change(box, { target: { value: '64' } });
    rerender(themed(fader(7)));
    fireEvent.blur(box);
    expect(onChange.mock.calls).toEqual([[64]]);
  });
});
