// What goes out to a lamp at this moment, asked twice a second.

import { useEffect, useState } from 'react';
import type { Patched } from '@hovlix/core/rig';
import { useHovlix } from '../../../host/hovlix';

const EVERY_MS = 500;

export function useBytes(lamp: Patched | undefined): readonly number[] | null {
  const { light } = useHovlix();
  const [bytes, setBytes] = useState<readonly number[] | null>(null);
  const id = lamp?.fixture.id;
  useEffect(() => {
    if (id === undefined) return;
    let wanted = true;
    const ask = () => void light.explain(id, 'now').then((answer) => wanted && setBytes(answer?.bytes ?? null));
    ask();
    const timer = setInterval(ask, EVERY_MS);
    return () => {
      wanted = false;
      clearInterval(timer);
    };
  }, [light, id]);
  return bytes;
}
