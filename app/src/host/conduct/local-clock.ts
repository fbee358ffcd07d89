/** Seconds of a steady clock that a page and its workers share. */
export function localSeconds(): number {
  return (performance.timeOrigin + performance.now()) / 1000;
}
