// The rig as it is lit right now, at the top of every place, with the output's health.

import { useEffect, useRef } from 'react';
import { useQuery } from '@tanstack/react-query';
import { View } from '@tamagui/core';
import { useHovlix, useLink, useLive, useStage } from '../../host/hovlix';
import { statusQuery } from '../../data/queries';
import { localSeconds } from '../../host/local-clock';
import { Words } from '../../ui/pieces';
import { painter } from '../../ui/stage/paint';

export function StageStrip({ height }: { readonly height: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { light } = useHovlix();
  const stage = useStage();

  useEffect(() => {
    const element = canvas.current;
    const context = element?.getContext('2d', { alpha: false });
    if (!element || !context || stage.heads.length === 0) return;
    const artist = painter(stage.heads);
    let lamps: Float32Array | undefined;
    let fresh = false;
    let frame = 0;
    const stop = light.onFrame((next) => {
      lamps = next;
      fresh = true;
    });
    const draw = () => {
      frame = requestAnimationFrame(draw);
      const scale = Math.min(2, window.devicePixelRatio || 1);
      const [width, tall] = [element.clientWidth, element.clientHeight];
      if (element.width !== Math.round(width * scale) || element.height !== Math.round(tall * scale)) {
        element.width = Math.round(width * scale);
        element.height = Math.round(tall * scale);
        fresh = true;
      }
      if (!lamps || !fresh || lamps.length === 0) return;
      fresh = false;
      context.setTransform(scale, 0, 0, scale, 0, 0);
      artist.paint(context, width, tall, lamps, localSeconds());
    };
    draw();
    return () => {
      stop();
      cancelAnimationFrame(frame);
    };
  }, [light, stage, height]);

  return (
    <View
      height={height}
      backgroundColor="#0b090f"
      role="img"
      aria-label="The stage as it is lit now"
      overflow="hidden"
    >
      <canvas ref={canvas} style={{ width: '100%', height: '100%', display: 'block' }} data-testid="stage" />
      <Health />
    </View>
  );
}

/** Sending or not, and how fast: always a word with the colour. */
function Health() {
  const conductor = useLink((link) => link.conductor);
  const sending = useLive((live) => live.sending);
  const blackout = useLive((live) => live.blackout.on);
  const status = useQuery(statusQuery(conductor === 'server'));
  const output = status.data?.output;
  const fault = output?.senders.some((sender) => sender.error);
  const [colour, text] =
    conductor === 'looking' ? ['$faint', 'looking for outputs']
    : conductor === 'browser' ? ['$warn', 'no output: this browser only']
    : conductor === 'lost' ? ['$fault', 'the server is gone']
    : !sending ? ['$warn', 'output is off']
    : fault ? ['$fault', 'output fails']
    : output ? ['$live', `sending ${Math.round(output.framesPerSecond)}/s${output.senders.length > 1 ? ` · ${output.senders.length} outputs` : ''}`]
    : ['$faint', 'starting']; // prettier-ignore
  return (
    <View position="absolute" right={10} top={8} gap={6} alignItems="flex-end" theme="dark">
      <View
        flexDirection="row"
        alignItems="center"
        gap={6}
        paddingHorizontal={10}
        height={26}
        borderRadius={13}
        backgroundColor="rgba(11,9,15,0.72)"
        role="status"
      >
        <View width={8} height={8} borderRadius={4} backgroundColor={colour as '$live'} />
        <Words fontSize={12} lineHeight={16} testID="health" color="$text">
          {text}
        </Words>
      </View>
      {blackout && (
        <View paddingHorizontal={10} height={26} justifyContent="center" borderRadius={13} backgroundColor="$doing">
          <Words fontSize={12} lineHeight={16} fontWeight="600" color="$onDoing">
            blackout
          </Words>
        </View>
      )}
    </View>
  );
}
