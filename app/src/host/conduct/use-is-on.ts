import { useEffect, useState } from 'react';
import { isOn } from '@hovlix/core/live';
import { useHovlix, useLive } from '../hovlix';

/** Whether a look or a chase is on; one that goes out by itself is off when its time has come. */
export function useIsOn(look: string): boolean {
  const { conducting } = useHovlix();
  const standing = useLive((live) => live.standing.find((one) => one.look === look));
  const ends = standing?.on ? standing.ends?.at : undefined;
  const [, wake] = useState(0);
  useEffect(() => {
    if (ends === undefined) return;
    const left = ends - conducting.now();
    const timer = left > 0 ? setTimeout(() => wake((n) => n + 1), left * 1000 + 20) : undefined;
    return () => clearTimeout(timer);
  }, [ends, conducting]);
  return standing !== undefined && isOn(standing, conducting.now());
}
