// Fingers and mice on the plan: tap, drag, draw a line around, pinch, wheel. What each means is the plan's business.

import { useRef, type PointerEvent, type RefObject } from 'react';

export type Target = { readonly kind: string; readonly id: string } | null;
export type Spot = { readonly x: number; readonly y: number };

export type PlanGestures = {
  /** What lies under a finger. */
  readonly targetAt: (at: Spot) => Target;
  readonly onTap: (target: Target, at: Spot) => void;
  /** Returns false to draw a line instead of dragging. */
  readonly onDragStart: (target: Target, at: Spot) => boolean;
  /** Since the drag began, in pixels. */
  readonly onDrag: (target: Target, by: Spot, at: Spot) => void;
  readonly onDragEnd: (target: Target, by: Spot, at: Spot) => void;
  readonly onLine: (line: readonly (readonly [number, number])[], done: boolean) => void;
  readonly onPinch: (from: Spot & { apart: number }, to: Spot & { apart: number }, done: boolean) => void;
};

/** A finger that moved less than this has tapped. */
const STILL = 7;

type Going =
  | { readonly type: 'down'; readonly target: Target; readonly from: Spot; readonly pointer: number }
  | { readonly type: 'drag'; readonly target: Target; readonly from: Spot; readonly pointer: number }
  | { readonly type: 'line'; readonly line: [number, number][]; readonly pointer: number }
  | { readonly type: 'pinch'; readonly from: Spot & { apart: number } };

export function usePlanGestures(area: RefObject<HTMLElement | null>, gestures: PlanGestures) {
  const going = useRef<Going | null>(null);
  const fingers = useRef(new Map<number, Spot>());

  const spotOf = (event: { clientX: number; clientY: number }): Spot => {
    const box = area.current!.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  const pinchOf = (): Spot & { apart: number } => {
    const [a, b] = [...fingers.current.values()] as [Spot, Spot];
    return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2, apart: Math.hypot(a.x - b.x, a.y - b.y) };
  };
  const begin = (down: Extract<Going, { type: 'down' }>): Going =>
    gestures.onDragStart(down.target, down.from)
      ? { ...down, type: 'drag' }
      : { type: 'line', line: [[down.from.x, down.from.y]], pointer: down.pointer };

  return {
    onPointerDown(event: PointerEvent<HTMLElement>) {
      if (event.button !== 0) return;
      area.current?.setPointerCapture(event.pointerId);
      fingers.current.set(event.pointerId, spotOf(event));
      if (fingers.current.size === 2) {
        const was = going.current;
        if (was?.type === 'drag') gestures.onDragEnd(was.target, { x: 0, y: 0 }, was.from);
        if (was?.type === 'line') gestures.onLine([], true);
        going.current = { type: 'pinch', from: pinchOf() };
      } else if (fingers.current.size === 1)
        going.current = {
          type: 'down',
          target: gestures.targetAt(spotOf(event)),
          from: spotOf(event),
          pointer: event.pointerId,
        };
    },
    onPointerMove(event: PointerEvent<HTMLElement>) {
      if (!fingers.current.has(event.pointerId)) return;
      const at = spotOf(event);
      fingers.current.set(event.pointerId, at);
      let now = going.current;
      if (!now) return;
      if (now.type === 'pinch') {
        if (fingers.current.size === 2) gestures.onPinch(now.from, pinchOf(), false);
        return;
      }
      if (now.pointer !== event.pointerId) return;
      if (now.type === 'down') {
        if (Math.hypot(at.x - now.from.x, at.y - now.from.y) < STILL) return;
        now = going.current = begin(now);
      }
      if (now.type === 'drag') gestures.onDrag(now.target, { x: at.x - now.from.x, y: at.y - now.from.y }, at);
      else if (now.type === 'line') {
        now.line.push([at.x, at.y]);
        gestures.onLine(now.line, false);
      }
    },
    onPointerUp(event: PointerEvent<HTMLElement>) {
      if (!fingers.current.has(event.pointerId)) return;
      const at = spotOf(event);
      const now = going.current;
      if (now?.type === 'pinch' && fingers.current.size === 2) gestures.onPinch(now.from, pinchOf(), true);
      fingers.current.delete(event.pointerId);
      if (now?.type === 'pinch') {
        if (fingers.current.size === 0) going.current = null;
        return;
      }
      going.current = null;
      if (now?.type === 'down') gestures.onTap(now.target, at);
      else if (now?.type === 'drag') gestures.onDragEnd(now.target, { x: at.x - now.from.x, y: at.y - now.from.y }, at);
      else if (now?.type === 'line') gestures.onLine(now.line, true);
    },
    onPointerCancel(event: PointerEvent<HTMLElement>) {
      fingers.current.delete(event.pointerId);
      const now = going.current;
      if (now?.type === 'drag') gestures.onDragEnd(now.target, { x: 0, y: 0 }, now.from);
      if (now?.type === 'line') gestures.onLine([], true);
      going.current = null;
    },
  };
}
