// The light of this moment under the plan's marks, drawn from what goes out.

import { useEffect, useRef } from 'react';
import { useHovlix, useStage } from '../../../host/hovlix';
import { localSeconds } from '../../../host/conduct/local-clock';
import { planPainter, type PlanView } from '../../../ui/stage/plan-light';
import type { Size } from './window';

type Props = { readonly size: Size; readonly view: PlanView };

export function LiveLight({ size, view }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { light } = useHovlix();
  const stage = useStage();
  const { scale, x0, y0, from } = view;
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || stage.heads.length === 0) return;
    const paint = planPainter(stage.heads);
    let lamps: Float32Array | undefined;
    let frame = 0;
    const draw = () => {
      frame = 0;
      if (lamps) paint(context, size, { scale, x0, y0, from }, lamps, localSeconds());
    };
    const stop = light.onFrame((fresh) => {
      lamps = fresh;
      frame ||= requestAnimationFrame(draw);
    });
    return () => {
      stop();
      cancelAnimationFrame(frame);
    };
  }, [light, stage, size, scale, x0, y0, from]);
  return (
    <canvas
      ref={canvas}
      width={size.width}
      height={size.height}
      aria-hidden
      style={{ position: 'absolute', inset: 0, width: size.width, height: size.height, pointerEvents: 'none' }}
    />
  );
}
