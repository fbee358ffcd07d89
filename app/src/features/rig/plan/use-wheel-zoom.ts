import { useEffect, useRef, type RefObject } from 'react';
import type { Spot } from './use-plan-gestures';

type Fingers = Spot & { readonly apart: number };

/** Pixels of wheel for a picture e times as large. */
const WHEEL = 300;

/** A wheel with Ctrl or Cmd, or a pinch on a touch pad, zooms. A plain wheel scrolls the page. */
export function useWheelZoom(area: RefObject<HTMLElement | null>, onPinch: (from: Fingers, to: Fingers) => void) {
  const now = useRef(onPinch);
  useEffect(() => {
    now.current = onPinch;
  });
  useEffect(() => {
    const element = area.current;
    const wheel = (event: WheelEvent) => {
      if (!event.ctrlKey && !event.metaKey) return;
      event.preventDefault();
      const box = element!.getBoundingClientRect();
      const at = { x: event.clientX - box.left, y: event.clientY - box.top };
      now.current({ ...at, apart: 1 }, { ...at, apart: Math.exp(-event.deltaY / WHEEL) });
    };
    element?.addEventListener('wheel', wheel, { passive: false });
    return () => element?.removeEventListener('wheel', wheel);
  }, [area]);
}
