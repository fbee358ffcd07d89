// What stands in a line while somebody is in it: a figure that goes on by itself, as where a song is, would change under
// the fingers, and what is typed would land beside it.

import { useState } from 'react';

export type TypedLine = {
  readonly text: string;
  /** Whether something was typed that was not read yet. */
  readonly typed: boolean;
  /** Keeps what stands there; with a text, that. */
  readonly hold: (text?: string) => void;
  readonly type: (text: string) => void;
  readonly letGo: () => void;
};

/** @param shown what stands there while nobody is in it. */
export function useTypedLine(shown: string): TypedLine {
  const [held, setHeld] = useState<{ readonly text: string; readonly typed: boolean } | null>(null);
  return {
    text: held?.text ?? shown,
    typed: held?.typed ?? false,
    hold: (text) => setHeld((now) => (text === undefined && now ? now : { text: text ?? shown, typed: false })),
    type: (text) => setHeld({ text, typed: true }),
    letGo: () => setHeld(null),
  };
}
