// The rig as it is lit right now, at the top of every place, with the output's health.

import { useEffect, useRef, type ReactNode } from 'react';
import { View } from '@tamagui/core';
import { useHovlix, useStage } from '../../host/hovlix';
import { localSeconds } from '../../host/conduct/local-clock';
import { useSession } from '../../host/session';
import { painter } from '../../ui/stage/paint';
import { Health } from './Health';

/** Painting takes at most one part in so many of the page's time: a slow machine shows fewer pictures, and stays quick. */
const SHARE = 3;
const NO_LAMPS = new Float32Array(0);

/** @param children lies over the picture's left corner. */
export function StageStrip({ height, children }: { readonly height: number; readonly children?: ReactNode }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { light } = useHovlix();
  const stage = useStage();

  useEffect(() => {
    const element = canvas.current;
    const context = element?.getContext('2d', { alpha: false });
    if (!element || !context) return;
    const artist = painter(stage.heads, stage.shapes);
    let lamps: Float32Array | undefined;
    let fresh = false;
    let frame = 0;
    let due = 0;
    const ringed = (marked: readonly string[]) => {
      artist.mark(marked);
      fresh = true;
    };
    ringed(useSession.getState().marked);
    const unmark = useSession.subscribe((now, before) => now.marked !== before.marked && ringed(now.marked));
    const stop = light.onFrame((next) => {
      lamps = next;
      fresh = true;
    });
    const draw = () => {
      frame = requestAnimationFrame(draw);
      const begun = performance.now();
      if (begun < due) return;
      const scale = Math.min(2, window.devicePixelRatio || 1);
      const [width, tall] = [element.clientWidth, element.clientHeight];
      if (element.width !== Math.round(width * scale) || element.height !== Math.round(tall * scale)) {
        element.width = Math.round(width * scale);
        element.height = Math.round(tall * scale);
        fresh = true;
      }
      if (!fresh) return;
      // A rig without lamps is an empty stage, not a black picture.
      if (stage.heads.length > 0 && (!lamps || lamps.length === 0)) return;
      fresh = false;
      context.setTransform(scale, 0, 0, scale, 0, 0);
      artist.paint(context, width, tall, lamps ?? NO_LAMPS, localSeconds());
      due = begun + (performance.now() - begun) * SHARE;
    };
    draw();
    return () => {
      stop();
      unmark();
      cancelAnimationFrame(frame);
    };
  }, [light, stage, height]);

  return (
    <View render="section" aria-label="Stage" height={height} backgroundColor="#0b090f" position="relative" zIndex={25}>
      <canvas
        ref={canvas}
        role="img"
        aria-label="The stage as it is lit now"
        style={{ width: '100%', height: '100%', display: 'block' }}
        data-testid="stage"
      />
      {children}
      <Health />
    </View>
  );
}
