// What stands where a place will be, until its script is here. Mostly it is here at once, and nothing is shown.

import { useEffect, useState } from 'react';
import { Column, Quiet } from './pieces';
import { WORDS } from './words';

/** So long nothing is shown, in ms: what comes sooner would only flicker. */
const SOON = 400;

export function Waiting() {
  const [late, setLate] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLate(true), SOON);
    return () => clearTimeout(timer);
  }, []);
  return (
    <Column flex={1} padding={24} role="status">
      {late && <Quiet>{WORDS.loadingPlace}</Quiet>}
    </Column>
  );
}

/** The name by which Expo Router asks for it. */
export { Waiting as SuspenseFallback };
