// What keys do with the notes or clips that are chosen in Close-up.

import { useEffect, useRef } from 'react';
import { keyOf } from '../../../ui/key-of';

type ChosenKeys = {
  readonly wanted: boolean;
  readonly any: boolean;
  readonly remove: () => void;
  readonly all: () => void;
  readonly none: () => void;
  /** By steps of the grid, and by rows. */
  readonly nudge: (way: number, rows: number) => void;
};

const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Delete removes, arrows nudge, Ctrl-A chooses all that show, Escape none. */
export function useChosenKeys(keys: ChosenKeys): void {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const now = latest.current;
      if (!now.wanted || (event.target as HTMLElement | null)?.closest('input, textarea, select, [role=slider]'))
        return;
      if ((event.ctrlKey || event.metaKey) && keyOf(event) === 'a') now.all();
      else if (!now.any) return;
      else if (event.key === 'Delete' || event.key === 'Backspace') now.remove();
      else if (event.key === 'Escape') now.none();
      else if (ARROWS[event.key] && !event.ctrlKey && !event.metaKey)
        now.nudge(...(ARROWS[event.key] as [number, number]));
      else return;
      event.preventDefault();
      event.stopPropagation();
    };
    globalThis.addEventListener('keydown', press, true);
    return () => globalThis.removeEventListener('keydown', press, true);
  }, []);
}
