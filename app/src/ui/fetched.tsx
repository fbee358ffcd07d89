// A piece of a screen that is fetched when it is first shown. Where it cannot be had, as when the Wi-Fi is gone, that is said,
// the rest of the screen stays as it is, and it is asked for again.

import { useEffect, useEffectEvent, useState, type ComponentType } from 'react';
import { useSession } from '../host/session';
import { WORDS } from './words';

type Options<Props> = {
  /** What stands in its place until it is here. */
  readonly until?: ComponentType<Props>;
  /** What closes it again where it cannot be had: one opens it anew. Without, it is asked for until it comes. */
  readonly close?: (props: Props) => void;
  /** Nothing is said: what stands there meanwhile does nearly as well. */
  readonly quiet?: boolean;
};

/** Between two tries, in ms. */
const AGAIN = 2000;

/** @param load fetches it. @returns what shows it, at once from the second time on. */
export function fetched<Props extends object>(
  load: () => Promise<ComponentType<Props>>,
  { until: Until, close, quiet = false }: Options<Props> = {},
): ComponentType<Props> {
  let known: ComponentType<Props> | null = null;
  return function Fetched(props: Props) {
    const [Piece, setPiece] = useState(() => known);
    const say = useSession((session) => session.say);
    const missing = useEffectEvent((first: boolean) => {
      if (first && !quiet) say(close ? WORDS.notFetched : WORDS.comesWhenServerIsBack, { tone: 'bad' });
      close?.(props);
    });
    useEffect(() => {
      if (Piece) return;
      let wanted = true;
      let timer: ReturnType<typeof setTimeout> | undefined;
      const ask = (first: boolean) => {
        load().then(
          (piece) => {
            known = piece;
            if (wanted) setPiece(() => piece);
          },
          () => {
            if (!wanted) return;
            missing(first);
            if (!close) timer = setTimeout(() => ask(false), AGAIN);
          },
        );
      };
      ask(true);
      return () => {
        wanted = false;
        clearTimeout(timer);
      };
    }, [Piece]);
    if (Piece) return <Piece {...props} />;
    return Until ? <Until {...props} /> : null;
  };
}
