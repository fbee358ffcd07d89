import { createStore } from 'zustand/vanilla';
import type { Source } from '@hovlix/core/gig';
import { testShow } from '../../../../core/src/testing/show';
import type { Controls, ControlsState } from './controls';
import { followGameButtons } from './game-buttons';

const foot: Source = { by: 'button', button: 3 };
const control = { id: 'foot', name: 'Foot', source: foot };

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

/** A controller of four buttons, and what a page made of it. */
function plugged() {
  const pressed = [false, false, false, false];
  const getGamepads = jest.fn(() => [{ connected: true, buttons: pressed.map((one) => ({ pressed: one })) }, null]);
  Object.defineProperty(navigator, 'getGamepads', { value: getGamepads, configurable: true });
  const store = createStore<ControlsState>(() => ({ learns: null, happened: null, down: [] }));
  const document = createStore<{ show: object }>(() => ({ show: testShow() }));
  const felt: [number, boolean][] = [];
  const key: Controls['key'] = (source, down) => {
    if (source.by === 'button') felt.push([source.button, down]);
    store.getState().learns?.(source);
    return true;
  };
  followGameButtons({ key, store }, { store: document as never });
  const press = (down: boolean) => {
    pressed[3] = down;
    jest.advanceTimersByTime(50);
  };
  return { getGamepads, store, document, felt, press };
}

test('a show that uses no button of a controller asks the browser for none, whatever is plugged in', () => {
  const { getGamepads, felt, press } = plugged();
  window.dispatchEvent(new Event('gamepadconnected'));
  press(true);
  expect(getGamepads).not.toHaveBeenCalled();
  expect(felt).toEqual([]);
});

test('one that is plugged in already is heard while a control learns, and from then on where the show uses it', () => {
  const { store, document, felt, press, getGamepads } = plugged();
  const learnt: Source[] = [];
  store.setState({
    learns: (source) => {
      learnt.push(source);
      document.setState({ show: { ...testShow(), controls: [control] } });
      store.setState({ learns: null });
    },
  });
  press(true);
  press(false);
  press(true);
  expect(learnt).toEqual([foot]);
  expect(felt).toEqual([
    [3, true],
    [3, false],
    [3, true],
  ]);
  // Taken out of the show as it is held: it is let go of, and nobody asks any more.
  document.setState({ show: testShow() });
  expect(felt.at(-1)).toEqual([3, false]);
  getGamepads.mockClear();
  press(false);
  expect(getGamepads).not.toHaveBeenCalled();
});
