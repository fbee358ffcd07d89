const two = (n: number) => String(n).padStart(2, '0');

/** 0:00 and on; 1:04:09 from an hour. @param time in seconds. */
export function clockText(time: number): string {
  const whole = Math.max(0, Math.floor(time));
  const [hours, minutes, rest] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60];
  return hours > 0 ? `${hours}:${two(minutes)}:${two(rest)}` : `${minutes}:${two(rest)}`;
}

/** `21:05`. A browser takes a hundredth of a second to find its own way to write that. */
export const timeOfDay = (moment: Date): string => `${two(moment.getHours())}:${two(moment.getMinutes())}`;
