import fc from 'fast-check';
import { respelled, textOf } from './text-of';

const bytes = (...all: readonly number[]) => Uint8Array.from(all);
/** “Ночь” in Windows-1251, “夜” and “ソナタ” in Shift JIS, “Łódź” in Windows-1250, “Motörhead” in Windows-1252. */
const NIGHT = [0xcd, 0xee, 0xf7, 0xfc];
const YORU = [0x96, 0xe9];
const SONATA = [0x83, 0x5c, 0x83, 0x69, 0x83, 0x5e];
const LODZ = [0xa3, 0xf3, 0x64, 0x9f];
const UMLAUT = [...'Mot'].map((one) => one.charCodeAt(0)).concat(0xf6, ...[...'rhead'].map((one) => one.charCodeAt(0)));

test('what says how it is written, or is UTF-8, is read so in every language', () => {
  const said = 'Łódź, Ночь 夜';
  for (const language of ['', 'de', 'ru', 'ja']) {
    expect(textOf(new TextEncoder().encode(said), language)).toBe(said);
    expect(textOf(new TextEncoder().encode(`\ufeff${said}`), language)).toBe(said);
    expect(textOf(bytes(0xff, 0xfe, 0x1d, 0x04), language).replace('\ufeff', '')).toBe('Н');
  }
});

test('older files are read as programs of the computer’s language write', () => {
  expect(textOf(bytes(...NIGHT), 'ru-RU')).toBe('Ночь');
  expect(textOf(bytes(...NIGHT), 'uk')).toBe('Ночь');
  expect(textOf(bytes(...YORU), 'ja')).toBe('夜');
  expect(textOf(bytes(...SONATA), 'ja-JP')).toBe('ソナタ');
  expect(textOf(bytes(...LODZ), 'pl')).toBe('Łódź');
  expect(textOf(bytes(0x6b, 0xf9, 0xf2), 'cs-CZ')).toBe('kůň');
  expect(textOf(bytes(0xdd, 0xfe, 0xfd), 'tr')).toBe('İşı');
  for (const language of ['zh-TW', 'zh-Hant-HK']) expect(textOf(bytes(0xa9, 0x5d), language)).toBe('夜');
  expect(textOf(bytes(0xd2, 0xb9, 0xc7, 0xfa), 'zh-CN')).toBe('夜曲');
});

test('elsewhere, and in names with an umlaut among English letters, they are Windows-1252', () => {
  for (const language of ['', 'en-US', 'de', 'fr', 'x']) expect(textOf(bytes(0x47, 0xfc, 0x80), language)).toBe('Gü€');
  expect(textOf(bytes(...UMLAUT), 'ru')).toBe('Motörhead');
  expect(textOf(bytes(...NIGHT, 0x0a, ...UMLAUT), 'ru')).toBe('Ночь\nMotörhead');
});

test('tags that were taken for Latin letters are what they were written as', () => {
  expect(respelled('Íî÷ü', 'ru')).toBe('Ночь');
  expect(respelled('Íî÷ü', 'fr')).toBe('Íî÷ü');
  // A French song of somebody who lives in Prague.
  expect(respelled('À la crème', 'cs')).toBe('À la crème');
  // UTF-8 where a tag says it has Latin-1, whatever the language.
  expect(respelled('À bientÃ´t', 'fr')).toBe('À bientÃ´t');
  expect(respelled('FranÃ§ois', 'fr')).toBe('François');
  expect(respelled('Ð\u009dÐ¾Ñ‡ÑŒ', 'en')).toBe('Ночь');
  // What does have other letters was read rightly.
  expect(respelled('Ночь é', 'ru')).toBe('Ночь é');
});

test('no bytes are refused, and plain English never changes', () => {
  const language = fc.constantFrom(
    '',
    'en',
    'ru',
    'pl',
    'el',
    'tr',
    'he',
    'ar',
    'lt',
    'vi',
    'th',
    'ja',
    'ko',
    'zh',
    'zh-TW',
  );
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 40 }), language, (some, of) => {
      expect(typeof textOf(some, of)).toBe('string');
    }),
  );
  const ascii = fc.string({ unit: 'binary-ascii', maxLength: 40 });
  fc.assert(fc.property(ascii, language, (text, of) => expect(respelled(text, of)).toBe(text)));
});
