// The clock on the wall as a number: seconds of local time since 1 January 1970, as if every day had 24 hours. Where
// clocks are set forward an hour is missing in it, and where they are set back one comes twice.

export const DAY = 86_400;

/** Days since 1 January 1970 in the Gregorian calendar, by counting years from March (Fliegel and Van Flandern 1968). */
export function dayOf(text: string): number {
  const [year = 0, month = 0, day = 0] = text.split('-').map(Number);
  const y = month > 2 ? year : year - 1;
  const m = month > 2 ? month - 3 : month + 9;
  return (
    y * 365 +
    Math.floor(y / 4) -
    Math.floor(y / 100) +
    Math.floor(y / 400) +
    Math.floor((m * 153 + 2) / 5) +
    day -
    719_469
  );
}

/** Such a day as it is written, 2026-12-04. */
export function dayText(day: number): string {
  const z = day + 719_468;
  const era = Math.floor(z / 146_097);
  const inEra = z - era * 146_097;
  const years = Math.floor(
    (inEra - Math.floor(inEra / 1460) + Math.floor(inEra / 36_524) - Math.floor(inEra / 146_096)) / 365,
  );
  const inYear = inEra - (years * 365 + Math.floor(years / 4) - Math.floor(years / 100));
  const m = Math.floor((inYear * 5 + 2) / 153);
  const date = inYear - Math.floor((m * 153 + 2) / 5) + 1;
  const month = m < 10 ? m + 3 : m - 9;
  const year = era * 400 + years + (month <= 2 ? 1 : 0);
  return `${String(year).padStart(4, '0')}-${two(month)}-${two(date)}`;
}

/** Monday is 1 (ISO 8601). 1 January 1970 was a Thursday. */
export const weekdayOf = (day: number): number => ((((day + 3) % 7) + 7) % 7) + 1;

export const secondsOf = (time: string): number => time.split(':').reduce((sum, part) => sum * 60 + Number(part), 0);

/** A moment as the day and the time of day that are written. */
export function written(wall: number): { readonly day: string; readonly time: string } {
  const whole = Math.floor(wall);
  const day = Math.floor(whole / DAY);
  const rest = whole - day * DAY;
  return {
    day: dayText(day),
    time: `${two(Math.floor(rest / 3600))}:${two(Math.floor(rest / 60) % 60)}:${two(rest % 60)}`,
  };
}

const two = (value: number): string => String(value).padStart(2, '0');
