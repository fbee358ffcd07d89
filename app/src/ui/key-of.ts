// Which key was pressed, on keyboards of all countries.

type Pressed = Pick<KeyboardEvent, 'key' | 'code' | 'shiftKey' | 'altKey'>;

/** The places of signs that keyboards of other scripts have letters at. */
const SIGNS: Readonly<Record<string, string>> = { Comma: ',', Period: '.', BracketLeft: '[', BracketRight: ']' };

/** What a browser calls a key whose sign is only on its way, or not to be had. */
const WRITES_NOTHING = new Set(['Dead', 'Process', 'Unidentified']);

/**
 * What is printed on a key, a letter small. Where the digits are written with Shift (French, Czech), their keys are the
 * digits without it, too; keys that write no Latin letter (Greek, Cyrillic, Arabic, or while an input method listens) are
 * the Latin letters and signs at their places, which are printed beside their own.
 */
export function keyOf({ key, code, shiftKey, altKey }: Pressed): string {
  if (/^[a-z0-9]$/i.test(key)) return key.toLowerCase();
  const [, letter, digit] = /^(?:Key([A-Z])|Digit(\d))$/.exec(code) ?? [];
  if (digit !== undefined && !shiftKey && !altKey) return digit;
  if (/^[!-~]$/.test(key) || (key.length > 1 && !WRITES_NOTHING.has(key))) return key;
  return letter?.toLowerCase() ?? SIGNS[code] ?? key;
}

/** The letter that is printed on a key, where keyboards of the United States have another at its place. */
export function signOf(event: Pressed): { readonly sign?: string } {
  const { key } = event;
  const sign = (/^\p{Script=Latin}$/u.test(key) ? key : keyOf(event)).toUpperCase();
  return /^\p{Lu}$/u.test(sign) && event.code !== `Key${sign}` ? { sign } : {};
}
