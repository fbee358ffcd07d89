import { createEvent, fireEvent, render, screen } from '@testing-library/react';
import { useDrag } from './drag';

type Kind = 'pointerDown' | 'pointerMove' | 'pointerUp' | 'pointerCancel' | 'lostPointerCapture';

function shown(takes = true) {
  const told: string[] = [];
  function Surface() {
    const hands = useDrag({
      down: ({ pointerId }) => {
        told.push(`down ${pointerId}`);
        return takes;
      },
      move: ({ pointerId }) => void told.push(`move ${pointerId}`),
      up: ({ pointerId }) => void told.push(`up ${pointerId}`),
      cancel: () => void told.push('cancel'),
    });
    return <div role="slider" aria-valuenow={0} tabIndex={0} {...hands} />;
  }
  render(<Surface />);
  const surface = screen.getByRole('slider');
  surface.setPointerCapture = jest.fn();
  const pointer = (type: Kind, pointerId: number, button = 0) => {
    const event = createEvent[type](surface);
    Object.defineProperties(event, { button: { value: button }, pointerId: { value: pointerId } });
    fireEvent(surface, event);
  };
  return { told, pointer };
}

test('the finger that came first drags; a palm beside it does nothing', () => {
  const { told, pointer } = shown();
  pointer('pointerDown', 1);
  pointer('pointerDown', 2);
  pointer('pointerMove', 2);
  pointer('pointerMove', 1);
  pointer('pointerUp', 2);
  pointer('pointerMove', 1);
  pointer('pointerUp', 1);
  pointer('lostPointerCapture', 1);
  expect(told).toEqual(['down 1', 'move 1', 'move 1', 'up 1']);
  pointer('pointerDown', 2);
  expect(told.at(-1)).toBe('down 2');
});

test('what the system takes away is not done; nor does a pointer drag that only passes', () => {
  const { told, pointer } = shown();
  pointer('pointerMove', 1);
  pointer('pointerDown', 1);
  pointer('pointerCancel', 1);
  pointer('pointerUp', 1);
  pointer('pointerDown', 1);
  pointer('lostPointerCapture', 1);
  pointer('pointerMove', 1);
  expect(told).toEqual(['down 1', 'cancel', 'down 1', 'cancel']);
});

test('where nothing is taken hold of, and with another button of the mouse, nothing is dragged', () => {
  const { told, pointer } = shown(false);
  pointer('pointerDown', 1);
  pointer('pointerMove', 1);
  pointer('pointerDown', 1, 2);
  expect(told).toEqual(['down 1']);
});
