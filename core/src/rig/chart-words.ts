// What the words beside a range mean: open, closed, a strobe with its rate, a slot with its colour, a rotation.

import type { Chroma, Range } from './schema';
import type { z } from 'zod';

export type Meaning = Pick<Range, 'does' | 'low' | 'high' | 'hold'> & {
  /** False where it was only guessed. */
  readonly sure: boolean;
};

/** What a range's words say on a channel of this attribute. */
export function meaningOf(words: string, attribute: string): Meaning {
  const text = words.toLowerCase();
  const says = (pattern: RegExp) => pattern.test(text);
  const wheel = attribute === 'Color1' || attribute === 'Gobo1' || attribute === 'Color2' || attribute === 'Gobo2';
  if (says(/\breset|zurücksetz|réinit|reinicio/)) return { does: 'reset', hold: 5, sure: true };
  if (says(/lamp(e)? (on|an|strike|ein)|\bstrike\b|ignition/)) return { does: 'lamp on', hold: 3, sure: true };
  if (says(/lamp(e)? (off|aus)/)) return { does: 'lamp off', hold: 3, sure: true };
  if (
    says(
      /no function|not used|unused|reserved|no effect|keine funktion|ohne funktion|sans fonction|\bidle\b|nothing|sin función/,
    )
  )
    return { does: 'nothing', sure: true };
  if (says(/shak|schüttel/)) return { does: 'shake', ...rates(text, 0.5, 4), sure: true };
  if (attribute === 'Shutter1') return shutterMeaning(text);
  if (attribute === 'CTC' && (text === '' || says(WHITES))) return { does: 'level', ...whites(text), sure: true };
  const lights = attribute === 'Dimmer' || attribute.startsWith('ColorAdd_');
  if (lights && says(/strob|flash|puls|blitz|lightning/)) return { does: 'strobe', ...rates(text, 1, 20), sure: true };
  if (wheel && says(/rotat|spin|scroll|rainbow|\bcw\b|\bccw\b|clockwise|flow|dreh|arc-en-ciel|regenbogen/))
    return { does: 'rotate', ...turning(text), sure: true };
  if (wheel && says(/\bopen\b|\bwhite\b|offen|weiß|blanc|no gobo|\bclear\b/)) return { does: 'open', sure: true };
  if (wheel) return { does: 'slot', sure: true };
  if (says(/index|position|0\s*°?\s*[-–]\s*360/)) return { does: 'index', low: 0, high: 360, sure: true };
  if (says(/rotat|spin|\bcw\b|\bccw\b|clockwise|dreh/)) return { does: 'rotate', ...turning(text), sure: true };
  if (
    text === '' ||
    says(
      /%|\bdim|bright|intens|slow|fast|min|max|0\s*[-–]\s*100|helligkeit|speed|langsam|schnell|near|far|linear|small|large|narrow|wide|low\s*(?:-|–|to)\s*high/,
    )
  )
    return { does: 'level', ...(says(FALLS) ? { low: 1, high: 0 } : {}), sure: true };
  if (says(/\boff\b|\baus\b|\bout\b|no prism|no frost/) || (lights && says(/clos|black|dark|\bzu\b|geschlossen|ferm/)))
    return { does: 'closed', sure: true };
  if (
    says(/\bon\b|\bin\b|insert|\ban\b/) ||
    (/^(Prism|Frost)/.test(attribute) && says(/prism|frost|diffus/)) ||
    (lights && says(/open|\bfull\b|offen|ouvert|abiert/))
  )
    return { does: 'open', sure: true };
  return { does: 'level', sure: false };
}

/** From much to little: from a wide beam to a narrow one, too. */
const FALLS =
  /(?:fast|wide|large|bright|schnell|breit)\s*(?:-|–|to|>|→|~|bis)\s*(?:slow|narrow|small|dark|langsam|schmal)/;

const WHITES = /\d\s*k\b|warm|cold|cool|kalt|froid|fr[ií]|chaud|cálid|cald/;
/** Kelvin at the two ends, or that it goes from cold to warm; from warm to cold where nothing is said. */
function whites(text: string): { low?: number; high?: number } {
  const both = /(\d{4,5})\s*k?\s*(?:-|–|to|bis|~|>|→)\s*(\d{4,5})\s*k/.exec(text);
  if (both) return { low: number(both[1]!), high: number(both[2]!) };
  return /(?:cold|cool|kalt|froid|fr[ií]).*(?:warm|chaud|cálid|cald)/.test(text) ? { low: 1, high: 0 } : {};
}

function shutterMeaning(text: string): Meaning {
  const says = (pattern: RegExp) => pattern.test(text);
  if (says(/strob|flash|puls|random|blitz|lightning/)) return { does: 'strobe', ...rates(text, 1, 20), sure: true };
  if (says(/\bdim|bright|intens|helligkeit|0\s*%?\s*[-–]\s*100/)) return { does: 'level', sure: true };
  if (says(/slow|fast|langsam|schnell|\blent|rapid|rápid|\bhz/))
    return { does: 'strobe', ...rates(text, 1, 20), sure: true };
  if (says(/open|\bon\b|offen|ouvert|abiert|aperto|\bauf\b|\bfull\b|always/)) return { does: 'open', sure: true };
  if (says(/clos|black|\boff\b|dark|\bzu\b|geschlossen|ferm|cerrad|chius|\baus\b/))
    return { does: 'closed', sure: true };
  return { does: 'nothing', sure: false };
}

/** Hz at the two ends: as the text says, else from slow to fast between what is usual. */
function rates(text: string, slow: number, fast: number): { low: number; high: number } {
  const both = /(\d+(?:[.,]\d+)?)\s*(?:hz)?\s*(?:-|–|to|bis|~|>|→)\s*(\d+(?:[.,]\d+)?)\s*(?:hz|flashes|fps)/.exec(text);
  if (both) return { low: number(both[1]!), high: number(both[2]!) };
  const one = /(\d+(?:[.,]\d+)?)\s*hz/.exec(text);
  if (one) return { low: number(one[1]!), high: number(one[1]!) };
  const falling = /fast\s*(?:-|–|to|>|→|bis)\s*slow|schnell.*langsam|max.*min/.test(text);
  return falling ? { low: fast, high: slow } : { low: slow, high: fast };
}

/** Turns a minute, against the clock below zero. */
function turning(text: string): { low: number; high: number } {
  const back = /ccw|anti|counter|reverse|backward|connections|gegen/.test(text);
  const rpm = /(\d+(?:[.,]\d+)?)\s*rpm/.exec(text);
  const most = rpm ? number(rpm[1]!) : 60;
  const falling = /fast\s*(?:-|–|to|>|→|bis)\s*slow|schnell.*langsam/.test(text);
  const [low, high] = falling ? [most, 2] : [2, most];
  return back ? { low: -low, high: -high } : { low, high };
}

const number = (text: string) => Number(text.replace(',', '.'));

type Colour = z.infer<typeof Chroma>;

/** CIE 1931 chromaticities of what wheels and gels are called, from deep to pale. */
const NAMED: readonly (readonly [RegExp, Colour])[] = [
  [/deep red|dark red|dunkelrot/, { x: 0.69, y: 0.3 }],
  [/deep blue|dark blue|congo|dunkelblau/, { x: 0.155, y: 0.045 }],
  [/light blue|sky|hellblau|bleu clair|azul claro/, { x: 0.24, y: 0.27 }],
  [/light green|lime|hellgrün/, { x: 0.36, y: 0.56 }],
  [/warm white|cto|3200|warmweiß/, { x: 0.44, y: 0.4 }],
  [/cold white|cool white|ctb|kaltweiß/, { x: 0.28, y: 0.29 }],
  [/open|white|weiß|weiss|blanc|bianco|clear/, { x: 0.3127, y: 0.329 }],
  [/turquoise|teal|cyan|türkis/, { x: 0.2, y: 0.35 }],
  [/\buv\b|ultra ?violet/, { x: 0.17, y: 0.02 }],
  [/lavender|violet|purple|lila|viola|violett/, { x: 0.24, y: 0.11 }],
  [/pink|rosa|rose/, { x: 0.4, y: 0.28 }],
  [/magenta/, { x: 0.4, y: 0.19 }],
  [/orange|arancio|naranja/, { x: 0.58, y: 0.4 }],
  [/amber|ambre|ámbar|ambra|bernstein/, { x: 0.56, y: 0.43 }],
  [/yellow|gelb|jaune|amarillo|giallo/, { x: 0.45, y: 0.49 }],
  [/red|\brot|rouge|rojo|rosso/, { x: 0.68, y: 0.31 }],
  [/green|grün|vert|verde/, { x: 0.25, y: 0.65 }],
  [/blue|blau|bleu|azul|blu/, { x: 0.15, y: 0.08 }],
];

/** A slot's colour by its name, both halves where it is split (“red/blue”, “red + blue”). White where it is not known. */
export function slotColour(name: string): {
  readonly colours: { colour: Colour; second?: Colour };
  readonly sure: boolean;
} {
  const halves = name.toLowerCase().split(/\s*(?:\/|\+|&)\s*/);
  const found = halves.map((half) => NAMED.find(([pattern]) => pattern.test(half))?.[1]);
  const [first, second] = found;
  if (!first) return { colours: { colour: { x: 0.3127, y: 0.329 } }, sure: false };
  return { colours: { colour: first, ...(second && halves.length === 2 ? { second } : {}) }, sure: true };
}
