import { keyOf, signOf } from './key-of';

/** What a browser says of a key: the sign it writes, and its place by the name it has on a keyboard of the United States. */
const pressed = (key: string, code: string, held: Partial<KeyboardEvent> = {}) =>
  keyOf({ key, code, shiftKey: false, altKey: false, ...held });
const shift = { shiftKey: true };

test('letters and digits are what they write, wherever they lie', () => {
  expect([pressed('t', 'KeyT'), pressed('T', 'KeyT', shift), pressed('t', 'KeyK'), pressed('a', 'KeyQ')]).toEqual([
    't',
    't',
    't',
    'a',
  ]);
  expect([pressed('1', 'Digit1'), pressed('7', 'Numpad7'), pressed('1', 'Digit1', shift)]).toEqual(['1', '7', '1']);
});

test('digits that are written with Shift are digits without it', () => {
  const french = ['&', 'é', '"', "'", '(', '-', 'è', '_', 'ç'];
  expect(french.map((sign, i) => pressed(sign, `Digit${i + 1}`)).join('')).toBe('123456789');
  const czech = ['+', 'ě', 'š', 'č', 'ř', 'ž', 'ý', 'á', 'í'];
  expect(czech.map((sign, i) => pressed(sign, `Digit${i + 1}`)).join('')).toBe('123456789');
});

test('a sign with Shift is that sign, also above a digit or where others have a letter', () => {
  expect(pressed('?', 'Digit7', shift)).toBe('?');
  expect(pressed('+', 'Digit1', shift)).toBe('+');
  expect([pressed('?', 'KeyM', shift), pressed(',', 'KeyM')]).toEqual(['?', ',']);
  expect(pressed('[', 'Digit5', { altKey: true })).toBe('[');
});

test('where other letters are written, keys are the Latin ones at their places', () => {
  expect([pressed('е', 'KeyT'), pressed('τ', 'KeyT'), pressed('Т', 'KeyN', shift), pressed('ا', 'KeyH')].join('')).toBe(
    'ttnh',
  );
  expect([pressed('б', 'Comma'), pressed('ю', 'Period'), pressed('х', 'BracketLeft')].join('')).toBe(',.[');
  expect([pressed('Process', 'KeyB'), pressed('Dead', 'KeyE'), pressed('Dead', 'Quote')]).toEqual(['b', 'e', 'Dead']);
});

test('keys with names keep them', () => {
  for (const name of ['Enter', 'Escape', 'ArrowLeft', 'PageDown', 'F5']) expect(pressed(name, name)).toBe(name);
  expect(pressed(' ', 'Space')).toBe(' ');
});

test('a letter at the place of another is told, so that a key can be called by what is printed on it', () => {
  const sign = (key: string, code: string) => signOf({ key, code, shiftKey: false, altKey: false }).sign;
  const signs = [sign('a', 'KeyQ'), sign('z', 'KeyY'), sign('ö', 'Semicolon'), sign('ü', 'BracketLeft'), sign('a', '')];
  expect(signs.join('')).toBe('AZÖÜA');
  for (const [key, code] of [
    ['q', 'KeyQ'],
    ['τ', 'KeyT'],
    ['&', 'Digit1'],
    ['PageDown', 'PageDown'],
    [' ', 'Space'],
    [';', 'Semicolon'],
  ] as const)
    expect(sign(key, code)).toBeUndefined();
});
