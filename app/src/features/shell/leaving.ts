import { useEffect, type RefObject } from 'react';

/** Shown for so long where nobody goes on. */
const SHOWN_MS = 7000;
/** What it takes to read a sentence: to find it, and each letter. */
const FOUND_MS = 1500;
const LETTER_MS = 40;

/**
 * A sentence lies over the place and leaves by itself: once it was read, as soon as one goes on with what it lies over.
 * @param over what shows it: a press there is no going on. @param said none where it stays.
 */
export function useLeaving(
  over: RefObject<HTMLElement | null>,
  said: { readonly text: string } | null,
  leave: () => void,
): void {
  useEffect(() => {
    if (!said) return;
    const read = Date.now() + Math.min(SHOWN_MS, FOUND_MS + LETTER_MS * said.text.length);
    let timer = setTimeout(leave, SHOWN_MS);
    const pressed = ({ target }: PointerEvent) => {
      if (over.current?.contains(target as Node)) return;
      clearTimeout(timer);
      timer = setTimeout(leave, Math.max(0, read - Date.now()));
    };
    window.addEventListener('pointerdown', pressed, true);
    return () => {
      clearTimeout(timer);
      window.removeEventListener('pointerdown', pressed, true);
    };
  }, [over, said, leave]);
}
