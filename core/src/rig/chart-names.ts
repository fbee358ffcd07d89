// What a channel is, by the words of a manual.

import { wordsOf } from './attribute-words';
import { ATTRIBUTES } from './attributes';
import { slotColour } from './chart-words';

/** A range of a channel, and what is said of it. */
type Said = { readonly text: string };

/** The attribute that a channel's name, or else what is said of its ranges, means. */
export function attributeNamed(text: string, ranges: readonly Said[]): { readonly attribute: string } | undefined {
  const named = wordIn(text);
  return named ?? (text === '' ? attributeOfRanges(ranges) : undefined) ?? strobing(ranges);
}

const strobing = (ranges: readonly Said[]) =>
  ranges.some(({ text }) => /strob/i.test(text)) ? { attribute: 'Shutter1' } : undefined;

/** The attribute whose longest word lies whole in the text; where words are equally long, the one that begins sooner. */
function wordIn(text: string): { readonly attribute: string } | undefined {
  const plain = text
    .toLowerCase()
    .replace(/[()[\]“”"_]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
  const numberless = plain.replace(/\s*\d+$/, '');
  let best: { attribute: string; length: number; at: number } | undefined;
  let emitter: typeof best;
  for (const { attribute, name } of ATTRIBUTES)
    for (const word of [...wordsOf(attribute), name.toLowerCase()]) {
      const at = plain === word || numberless === word ? 0 : wholeWord(plain, word);
      if (at < 0) continue;
      const found = { attribute, length: word.length, at };
      if (isBetter(found, best)) best = found;
      if (attribute.startsWith('ColorAdd_') && isBetter(found, emitter)) emitter = found;
    }
  // “Red dimming” is the red.
  return best?.attribute === 'Dimmer' && emitter && emitter.length > 1 ? emitter : best;
}

type Word = { readonly length: number; readonly at: number };
const isBetter = (one: Word, other: Word | undefined): boolean =>
  !other || one.length > other.length || (one.length === other.length && one.at < other.at);

function wholeWord(text: string, word: string): number {
  if (word.length < 2) return -1;
  const at = text.indexOf(word);
  if (at < 0) return -1;
  const letter = /[a-zà-ÿ]/;
  const free = !letter.test(text[at - 1] ?? ' ') && !letter.test(text[at + word.length] ?? ' ');
  return free || /[^\x20-\x7f]/.test(word) ? at : -1;
}

/** What a channel without a name is by what its ranges are said to do: the attribute that most of them name. */
function attributeOfRanges(ranges: readonly Said[]): { readonly attribute: string } | undefined {
  const shutter = strobing(ranges);
  if (shutter) return shutter;
  const counts = new Map<string, number>();
  for (const { text } of ranges) {
    const attribute = slotColour(text).sure ? 'Color1' : wordIn(text)?.attribute;
    if (attribute) counts.set(attribute, (counts.get(attribute) ?? 0) + 1);
  }
  const [most] = [...counts].sort((a, b) => b[1] - a[1]);
  // One colour among other words is no wheel of them.
  return most && (most[0] !== 'Color1' || most[1] > 1) ? { attribute: most[0] } : undefined;
}
