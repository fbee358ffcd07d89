/** Seconds of a steady clock that a page and its workers share. */
export const localSeconds = (): number => (performance.timeOrigin + performance.now()) / 1000;

/** When an event was, by that clock: a page that was busy hears of it later. */
export const whenOf = ({ timeStamp }: { readonly timeStamp: number }): number =>
  (performance.timeOrigin + timeStamp) / 1000;
