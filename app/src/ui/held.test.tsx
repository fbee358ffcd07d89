import { createEvent, fireEvent, render, screen } from '@testing-library/react';
import { useHeld } from './held';

type Props = { readonly does: (what: string) => void };

function Button({ does }: Props) {
  return <button {...useHeld({ down: () => does('down'), up: () => does('up') })} />;
}

function shown() {
  const told: string[] = [];
  const { unmount } = render(<Button does={(what) => told.push(what)} />);
  const button = screen.getByRole('button');
  button.setPointerCapture = jest.fn();
  const pointer = (type: 'pointerDown' | 'pointerUp' | 'pointerCancel' | 'lostPointerCapture', which = 0) => {
    const event = createEvent[type](button);
    Object.defineProperties(event, { button: { value: which }, pointerId: { value: 1 } });
    fireEvent(button, event);
  };
  return { told, button, pointer, unmount };
}

test('a finger presses once, though the browser plays it again as a mouse', () => {
  const { told, button, pointer } = shown();
  pointer('pointerDown');
  fireEvent.touchStart(button);
  expect(told).toEqual(['down']);
  pointer('pointerUp');
  pointer('lostPointerCapture');
  fireEvent.touchEnd(button);
  fireEvent.mouseDown(button);
  fireEvent.mouseUp(button);
  fireEvent.click(button);
  expect(told).toEqual(['down', 'up']);
});

test('a finger that begins to scroll lets go, and so does a button that goes', () => {
  const { told, pointer, unmount } = shown();
  pointer('pointerDown');
  pointer('pointerCancel');
  expect(told).toEqual(['down', 'up']);
  pointer('pointerDown');
  unmount();
  expect(told).toEqual(['down', 'up', 'down', 'up']);
});

test('Enter and Space hold it, however often they repeat; another key and another button of the mouse do not', () => {
  const { told, button, pointer } = shown();
  for (const key of ['Enter', ' ']) {
    fireEvent.keyDown(button, { key });
    fireEvent.keyDown(button, { key, repeat: true });
    fireEvent.keyUp(button, { key });
  }
  fireEvent.keyDown(button, { key: 'a' });
  pointer('pointerDown', 2);
  expect(told).toEqual(['down', 'up', 'down', 'up']);
});
