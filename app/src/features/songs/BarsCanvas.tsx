// Some bars as one painting: waveform, light, and lanes in miniature. One canvas, as each is a layer of its own to the browser.

import { useEffect, useRef, useState } from 'react';
import { followsSound } from '@hovlix/core/light';
import type { ActionLane, CurveLane, HitLane } from '@hovlix/core/song';
import { useHovlix, usePlays, useShow, useStage } from '../../host/hovlix';
import { usePalette } from '../../ui/palette';
import { ribbonTimes } from './model';
import { lightOf, paintLane, paintLight, paintWave, type Bars, type Light } from './paint';
import { sized } from './sized';

/** Where they lie from the top, in pixels. */
export const WAVE_TOP = 16;
export const WAVE = 20;
const LIGHT_TOP = 40;
const LIGHT = 33;
/** Moments a bar at which light is worked out: half-beat blinks are seen. */
const COLUMNS = 32;

type Props = Bars & {
  readonly peaks: Uint8Array | null;
  /** In pixels. */
  readonly width: number;
  readonly height: number;
  /** Lanes and where each lies. */
  readonly rows?: readonly Row[];
};

export type Row = {
  readonly lane: HitLane | CurveLane | ActionLane;
  readonly top: number;
  readonly height: number;
  /** It does nothing now. */
  readonly idle: boolean;
};

const NO_ROWS: readonly Row[] = [];

export function BarsCanvas({ song, first, count, peaks, width, height, rows = NO_ROWS }: Props) {
  const palette = usePalette();
  const canvas = useRef<HTMLCanvasElement>(null);
  const light = useLight({ song, first, count });
  useEffect(() => {
    const context = canvas.current && sized(canvas.current, width, height);
    if (!context) return;
    const bars = { song, first, count };
    if (peaks) paintWave(context, bars, { top: WAVE_TOP, width, height: WAVE }, peaks, palette.faint);
    if (light) paintLight(context, { top: LIGHT_TOP, width, height: LIGHT }, light);
    for (const { lane, top, height: tall, idle } of rows) {
      context.globalAlpha = idle ? 0.35 : 1;
      paintLane(context, bars, { top, width, height: tall }, lane, palette);
    }
  }, [song, first, count, peaks, width, height, rows, light, palette]);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      data-ribbon={first}
      data-painted={light ? 'true' : undefined}
      style={{ position: 'absolute', left: 0, top: 0, width, height }}
    />
  );
}

/** A strip a role: what the rig will really show, followers too once the song is heard. Roles that give no light have none. */
function useLight({ song, first, count }: Bars): Light | null {
  const { light } = useHovlix();
  const stage = useStage();
  const roles = useShow((show) => show.roles);
  const looks = usePlays();
  const casting = useShow((show) => show.rigs.find((rig) => rig.id === show.rig)?.casting);
  const heard = useHeard(looks.some(followsSound) ? song.music?.hash : undefined);
  const [painted, setPainted] = useState<Light | null>(null);
  useEffect(() => {
    let wanted = true;
    const shining = new Set(stage.heads.filter((head) => head.kind !== 'hazer').map((head) => head.fixture));
    const shown = (roles ?? []).filter((role) =>
      casting?.some((cast) => cast.role === role.id && cast.fixtures.some((fixture) => shining.has(fixture))),
    );
    if (shown.length === 0) return;
    const times = ribbonTimes(song, first, count, COLUMNS);
    const ids = shown.map((role) => role.id);
    void light.ribbon(song.id, ids, times).then((pixels) => {
      if (wanted && pixels) setPainted(lightOf(pixels, times.length, ids.length));
    });
    return () => {
      wanted = false;
    };
  }, [light, stage, song, first, count, roles, looks, casting, heard]);
  return painted;
}

/** Whether the light knows what can be heard in a recording; brings it there. */
function useHeard(hash: string | undefined): boolean {
  const { sounds } = useHovlix();
  const [known, setKnown] = useState(() => (hash !== undefined && sounds.knows(hash) ? hash : undefined));
  useEffect(() => {
    let wanted = hash !== undefined;
    if (hash !== undefined) void sounds.bring(hash).then((found) => found && wanted && setKnown(hash));
    return () => {
      wanted = false;
    };
  }, [sounds, hash]);
  return known === hash;
}
