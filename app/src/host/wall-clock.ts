// The clock on the wall of this device.

/** Seconds of local time since 1 January 1970, at a moment in seconds of UTC. */
export function localSeconds(utc: number): number {
  return utc - new Date(utc * 1000).getTimezoneOffset() * 60;
}
