import { createEvent, fireEvent, render, screen } from '@testing-library/react';
import { useHeld } from './held';

type Props = { readonly does: (what: string) => void; readonly of?: string; readonly on?: boolean };

function Button({ does, of = '', on = true }: Props) {
  const held = useHeld({ down: () => does(`down${of}`), up: () => does(`up${of}`) }, on);
  return <button {...(on ? held : {})} />;
}

function shown() {
  const told: string[] = [];
  const does = (what: string) => void told.push(what);
  const { unmount, rerender } = render(<Button does={does} />);
  const button = screen.getByRole('button');
  button.setPointerCapture = jest.fn();
  const pointer = (
    type: 'pointerDown' | 'pointerUp' | 'pointerCancel' | 'lostPointerCapture',
    which = 0,
    pointerId = 1,
  ) => {
    const event = createEvent[type](button);
    Object.defineProperties(event, { button: { value: which }, pointerId: { value: pointerId } });
    fireEvent(button, event);
  };
  const become = (props: Omit<Props, 'does'>) => rerender(<Button does={does} {...props} />);
  return { told, button, pointer, unmount, become };
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

test('a second finger on it neither presses again nor lets go', () => {
  const { told, pointer } = shown();
  pointer('pointerDown', 0, 1);
  pointer('pointerDown', 0, 2);
  pointer('pointerUp', 0, 2);
  expect(told).toEqual(['down']);
  pointer('pointerUp', 0, 1);
  expect(told).toEqual(['down', 'up']);
});

test('what was pressed is let go of, whatever the button does by then', () => {
  const { told, pointer, become } = shown();
  become({ of: ' the red' });
  pointer('pointerDown');
  become({ of: ' the blue' });
  pointer('pointerUp');
  expect(told).toEqual(['down the red', 'up the red']);
});

test('a button that is held no more lets go of what was pressed', () => {
  const { told, pointer, become } = shown();
  pointer('pointerDown');
  become({ on: false });
  expect(told).toEqual(['down', 'up']);
  become({ on: true });
  pointer('pointerDown');
  expect(told).toEqual(['down', 'up', 'down']);
});
