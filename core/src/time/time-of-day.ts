// A time of day in figures, as machines show where they are.

/** A time of day as machines show it: hours, minutes, seconds and thousandths. */
export function timecodeText(time: number): string {
  const ms = Math.round(time * 1000);
  const two = (value: number) => String(value).padStart(2, '0');
  const whole = Math.floor(ms / 1000);
  const rest = ms % 1000;
  const text = `${two(Math.floor(whole / 3600))}:${two(Math.floor(whole / 60) % 60)}:${two(whole % 60)}`;
  return rest === 0 ? text : `${text}.${String(rest).padStart(3, '0')}`;
}

/** Reads hours, minutes and seconds, the last with a fraction; undefined for anything else, and for a day and more. */
export function timecodeFrom(text: string): number | undefined {
  const match = /^(\d{1,2}):([0-5]?\d):([0-5]?\d(?:[.,]\d{1,3})?)$/.exec(text.trim());
  if (!match || Number(match[1]) > 23) return undefined;
  return Number(match[1]) * 3600 + Number(match[2]) * 60 + Number(match[3]!.replace(',', '.'));
}
