// A show's rig in the light of its first look.

import { useEffect, useRef } from 'react';
import { useHovlix } from '../../host/hovlix';
import { painter } from '../../ui/stage/paint';

type Props = { readonly id: string; /** Changes with the show. */ readonly stamp: string; readonly height: number };

export function Portrait({ id, stamp, height }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const app = useHovlix();
  useEffect(() => {
    let wanted = true;
    const draw = async () => {
      const { show } = app.document.store.getState();
      const kept = show?.id === id ? undefined : await app.repository.load(id);
      const of = show?.id === id ? show : kept?.ok ? kept.value.show : undefined;
      if (!of || !wanted) return;
      const { heads, shapes, lamps } = await app.light.portrait(of);
      const element = canvas.current;
      const context = element?.getContext('2d', { alpha: false });
      if (!wanted || !element || !context || heads.length === 0) return;
      const scale = Math.min(2, window.devicePixelRatio || 1);
      element.width = Math.round(element.clientWidth * scale);
      element.height = Math.round(element.clientHeight * scale);
      context.setTransform(scale, 0, 0, scale, 0, 0);
      painter(heads, shapes).paint(context, element.clientWidth, element.clientHeight, lamps, 0);
    };
    void draw();
    return () => {
      wanted = false;
    };
  }, [app, id, stamp, height]);
  return <canvas ref={canvas} style={{ width: '100%', height, display: 'block', background: '#0b090f' }} aria-hidden />;
}
