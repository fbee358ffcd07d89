// What a drag on the plan moves by itself, so that nothing is drawn anew while a finger moves.

import type { Spot } from './use-plan-gestures';

export type Layers = {
  /** Each takes the element that it stands for, as a `ref`. */
  readonly all: (element: SVGGElement | null) => void;
  readonly moving: (element: SVGSVGElement | null) => void;
  readonly guides: (element: SVGPathElement | null) => void;
  readonly lasso: (element: SVGPolygonElement | null) => void;
  readonly readout: (element: SVGTextElement | null) => void;
  readonly arrow: (element: SVGLineElement | null) => void;
  /** What goes with the finger is so far from its place, in pixels. */
  readonly shift: (by: Spot) => void;
  /** The lines that were snapped to, as a path; none with ''. */
  readonly guide: (path: string) => void;
  readonly draw: (line: readonly (readonly [number, number])[]) => void;
  /** 0…1, above the finger; null for none. */
  readonly level: (level: number | null, at: Spot) => void;
  readonly arrowTo: (at: Spot) => void;
  /** The picture so many times as large, moved by so much; null as it was drawn. */
  readonly zoomed: (to: (Spot & { readonly times: number }) | null) => void;
};

/** How far above the finger the level stands, in pixels. */
const ABOVE = 34;

export function planLayers(): Layers {
  let all: SVGGElement | null = null;
  let moving: SVGSVGElement | null = null;
  let guides: SVGPathElement | null = null;
  let lasso: SVGPolygonElement | null = null;
  let readout: SVGTextElement | null = null;
  let arrow: SVGLineElement | null = null;
  const move = (transform: string) => {
    if (moving) moving.style.transform = transform;
  };
  return {
    all: (element) => void (all = element),
    moving: (element) => void (moving = element),
    guides: (element) => void (guides = element),
    lasso: (element) => void (lasso = element),
    readout: (element) => void (readout = element),
    arrow: (element) => void (arrow = element),
    shift: ({ x, y }) => move(x === 0 && y === 0 ? '' : `translate(${x}px, ${y}px)`),
    guide(path) {
      if (guides?.getAttribute('d') !== path) guides?.setAttribute('d', path);
    },
    draw: (line) => lasso?.setAttribute('points', line.map(([x, y]) => `${x},${y}`).join(' ')),
    level(level, at) {
      if (!readout) return;
      readout.setAttribute('x', String(at.x));
      readout.setAttribute('y', String(at.y - ABOVE));
      readout.textContent = level === null ? '' : `${Math.round(level * 100)} %`;
    },
    arrowTo({ x, y }) {
      arrow?.setAttribute('x2', String(x));
      arrow?.setAttribute('y2', String(y));
    },
    zoomed(to) {
      all?.setAttribute('transform', to ? `translate(${to.x} ${to.y}) scale(${to.times})` : '');
      move(to ? `translate(${to.x}px, ${to.y}px) scale(${to.times})` : '');
    },
  };
}
