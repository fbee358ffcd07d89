import { createEvent, fireEvent, render, screen } from '@testing-library/react';
import { atOnceUnlessScrolling } from './at-once';

/** A button in a list of a height, in a window of 100 pixels. */
function inList(height: number, may?: () => boolean) {
  const pressed = jest.fn();
  render(
    <div data-testid="list" style={{ overflowY: 'auto' }}>
      <button {...atOnceUnlessScrolling(pressed, may)} />
    </div>,
  );
  Object.defineProperties(screen.getByTestId('list'), {
    scrollHeight: { value: height },
    clientHeight: { value: 100 },
  });
  const button = screen.getByRole('button');
  const down = (pointerType: string, which = 0) => {
    const event = createEvent.pointerDown(button);
    Object.defineProperties(event, { pointerType: { value: pointerType }, button: { value: which } });
    fireEvent(button, event);
  };
  const click = (detail = 1) => fireEvent.click(button, { detail });
  return { pressed, down, click };
}

test.each([
  ['a finger on a list that fits', 'touch', 100],
  ['a mouse on a list that scrolls', 'mouse', 500],
])('%s counts as it comes down, once', (_, pointer, height) => {
  const { pressed, down, click } = inList(height);
  down(pointer);
  expect(pressed).toHaveBeenCalledTimes(1);
  click();
  expect(pressed).toHaveBeenCalledTimes(1);
  // Dragged away, there is no click; the next press counts all the same, and so does a key.
  down(pointer);
  down(pointer);
  expect(pressed).toHaveBeenCalledTimes(3);
  click(0);
  expect(pressed).toHaveBeenCalledTimes(4);
  down(pointer, 2);
  expect(pressed).toHaveBeenCalledTimes(4);
});

test('a finger on a list that scrolls counts as it lifts, and not at all where it scrolled', () => {
  const { pressed, down, click } = inList(500);
  down('touch');
  expect(pressed).not.toHaveBeenCalled();
  click();
  expect(pressed).toHaveBeenCalledTimes(1);
  down('touch');
  expect(pressed).toHaveBeenCalledTimes(1);
});

test('what a finger may not do before it lifts waits for that, until it may', () => {
  let may = false;
  const { pressed, down, click } = inList(100, () => may);
  down('touch');
  expect(pressed).not.toHaveBeenCalled();
  click();
  expect(pressed).toHaveBeenCalledTimes(1);
  may = true;
  down('touch');
  expect(pressed).toHaveBeenCalledTimes(2);
  click();
  expect(pressed).toHaveBeenCalledTimes(2);
});
