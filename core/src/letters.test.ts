import fc from 'fast-check';
import { finder, folded, utf8 } from './letters';

test('what is typed plainly finds names with accents, as a Mac writes them, too', () => {
  expect(finder('cafe del')('Café del Mar')).toBe(true);
  expect(finder('grusse')('Gru\u0308ße aus Köln')).toBe(true);
  expect(finder('GRÜSSE koln')('Grüße aus Ko\u0308ln')).toBe(true);
  expect(finder('strasse')('STRAẞE')).toBe(true);
  expect(finder('lodz orsted')('Łódź, Ørsted')).toBe(true);
  expect(finder('night')('ｎｉｇｈｔ ﬁre')).toBe(true);
  expect(finder('ночь')('Белая Ночь')).toBe(true);
  expect(finder('夜')('夜の灯')).toBe(true);
});

test('each word must be there, in any order; no word finds all', () => {
  expect(finder('mar cafe')('Café del Mar')).toBe(true);
  expect(finder('cafe sol')('Café del Mar')).toBe(false);
  expect([finder('')('x'), finder('  ')('')]).toEqual([true, true]);
});

test('folded words stay as they are when they are folded again', () => {
  fc.assert(fc.property(fc.string({ unit: 'binary' }), (words) => expect(folded(folded(words))).toBe(folded(words))));
});

test('a name is cut at a whole letter: what is left is UTF-8, as long as there is room for', () => {
  const read = new TextDecoder('utf-8', { fatal: true });
  expect(read.decode(utf8('Hovlix Café', 11))).toBe('Hovlix Caf');
  expect(read.decode(utf8('Hovlix Café', 12))).toBe('Hovlix Café');
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), fc.nat(70), (name, most) => {
      const cut = utf8(name, most);
      expect(name.startsWith(read.decode(cut))).toBe(true);
      expect(cut.length).toBeLessThanOrEqual(most);
      expect(new TextEncoder().encode(name).length <= most || cut.length > most - 4).toBe(true);
    }),
  );
});
