// The rig as it is lit right now, at the top of every place, with the output's health.

import { useEffect, useRef, type ReactNode } from 'react';
import { View } from '@tamagui/core';
import { useHovlix } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { Health } from './Health';
import { WORDS } from './words';

/** @param children lies over the picture's left corner. */
export function StageStrip({ height, children }: { readonly height: number | '100%'; readonly children?: ReactNode }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { light } = useHovlix();

  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    const painted = light.paint(element);
    const fit = () =>
      painted.size(element.clientWidth, element.clientHeight, Math.min(2, window.devicePixelRatio || 1));
    const fitting = new ResizeObserver(fit);
    fitting.observe(element);
    // Another zoom, or another screen: as many pixels of the page, but not of the screen.
    window.addEventListener('resize', fit);
    painted.mark(useSession.getState().marked);
    const unmark = useSession.subscribe((now, before) => now.marked !== before.marked && painted.mark(now.marked));
    return () => {
      fitting.disconnect();
      window.removeEventListener('resize', fit);
      unmark();
      painted.stop();
    };
  }, [light]);

  return (
    <View
      render="section"
      aria-label={WORDS.stage}
      height={height}
      backgroundColor="#0b090f"
      position="relative"
      zIndex={25}
      style={{ gridArea: 'stage' }}
    >
      <canvas
        ref={canvas}
        role="img"
        aria-label={WORDS.stageAsLit}
        style={{ width: '100%', height: '100%', display: 'block' }}
        data-testid="stage"
      />
      {children}
      <Health />
    </View>
  );
}
