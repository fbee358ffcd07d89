// A look's card shows the rig rendered in that look.

import { useEffect, useRef } from 'react';
import { useHovlix, useShow, useStage } from '../host/hovlix';
import type { LookValue } from '@hovlix/core/light';
import { Column, Words } from './pieces';
import { painter } from './stage/paint';
import { useUnlit } from './use-unlit';

type Props = {
  /** A look's or a chase's id, or values that are stored nowhere by themselves. */
  readonly look: string | readonly LookValue[];
  readonly height: number;
};

export function LookPicture({ look, height }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { light } = useHovlix();
  const stage = useStage();
  const stored = useShow(
    (show) => show.looks.find((one) => one.id === look) ?? show.chases.find((one) => one.id === look),
  );

  const aims = useShow((show) => show.aims);
  const unlit = useUnlit(look);

  useEffect(() => {
    let wanted = true;
    void light.picture(look).then((lamps) => {
      const element = canvas.current;
      const context = element?.getContext('2d', { alpha: false });
      if (!wanted || !element || !context || !lamps || lamps.length === 0) return;
      const scale = Math.min(2, window.devicePixelRatio || 1);
      element.width = Math.round(element.clientWidth * scale);
      element.height = Math.round(element.clientHeight * scale);
      context.setTransform(scale, 0, 0, scale, 0, 0);
      painter(stage.heads, stage.shapes).paint(context, element.clientWidth, element.clientHeight, lamps, 0);
    });
    return () => {
      wanted = false;
    };
  }, [light, look, stage, stored, aims, height]);

  if (unlit)
    return (
      <Column height={height} alignItems="center" justifyContent="center" backgroundColor="#0b090f" padding={8}>
        <Words color="#d8cfe0" fontSize={14} lineHeight={18} textAlign="center">
          {unlit}
        </Words>
      </Column>
    );
  return <canvas ref={canvas} style={{ width: '100%', height, display: 'block' }} aria-hidden />;
}
