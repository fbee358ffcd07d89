// How loud it is now over the spectrum, and the band that is listened to; drawn across, it chooses one.

import { useEffect, useRef, type PointerEvent } from 'react';
import { useQuery } from '@tanstack/react-query';
import { BAND_EDGES, ENVELOPE_RATE, LOUDNESS_BANDS, readEnvelopes } from '@hovlix/core/music';
import { songTimeAt } from '@hovlix/core/live';
import { envelopesQuery } from '../../../data/queries';
import { useHovlix, useLive, useShow } from '../../../host/hovlix';
import { useDrag } from '../../../ui/drag';
import { eachFrame } from '../../../ui/each-frame';
import { usePalette } from '../../../ui/palette';
import { WORDS } from './words';

type Props = {
  readonly source: 'song' | 'microphone';
  /** Hertz. */
  readonly low: number;
  readonly high: number;
  /** Without, it only shows. */
  readonly onDraw?: (from: number, to: number) => void;
};

/** A microphone's last moment is shown for so long, in seconds. */
const FRESH = 0.3;

export function BandsPicture({ source, low, high, onDraw }: Props) {
  const app = useHovlix();
  const palette = usePalette();
  const song = useLive((live) => live.song?.id);
  const hash = useShow((show) => show.songs.find((one) => one.id === song)?.music?.hash);
  const bytes = useQuery(envelopesQuery(app.sounds, source === 'song' ? hash : undefined)).data;
  const bars = useRef<HTMLDivElement>(null);
  const begun = useRef<number | null>(null);

  useEffect(() => {
    const read = bytes ? readEnvelopes(bytes, 'the song') : undefined;
    const envelopes = read?.ok ? read.value : undefined;
    const draw = () => {
      const { live } = app.conducting.store.getState();
      const now = app.conducting.now();
      const last = live.hearing?.moments.at(-1);
      const fresh = last && now - last.at < FRESH ? last.levels : undefined;
      const at = live.song ? Math.floor(songTimeAt(live.song, now) * ENVELOPE_RATE) * LOUDNESS_BANDS : -1;
      [...(bars.current?.children ?? [])].forEach((bar, band) => {
        const byte = envelopes && live.song ? (envelopes.levels[at + band] ?? 0) : (fresh?.[band] ?? 0);
        (bar as HTMLElement).style.transform = `scaleY(${Math.max(0.03, byte / 255)})`;
      });
    };
    return eachFrame(draw);
  }, [app, bytes]);

  const hertzAt = (event: PointerEvent<HTMLDivElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const share = Math.min(1, Math.max(0, (event.clientX - box.left) / box.width));
    return Math.round(BAND_EDGES[0]! * (BAND_EDGES[LOUDNESS_BANDS]! / BAND_EDGES[0]!) ** share);
  };
  const draw = (event: PointerEvent<HTMLDivElement>) => {
    if (!onDraw || begun.current === null) return;
    const here = hertzAt(event);
    // Wide enough to hold something: a third of an octave.
    if (Math.abs(Math.log2(here / begun.current)) > 1 / 3) onDraw(begun.current, here);
  };
  const letGo = () => void (begun.current = null);
  const down = (event: PointerEvent<HTMLDivElement>) => {
    begun.current = hertzAt(event);
    return onDraw !== undefined;
  };
  const hands = useDrag<HTMLDivElement>({ down, move: draw, up: letGo, cancel: letGo });
  return (
    <div
      role="img"
      aria-label={onDraw ? WORDS.loudnessOverSpectrum : WORDS.loudnessOverSpectrumShort}
      {...hands}
      style={{
        background: palette.sunken,
        borderRadius: 14,
        padding: 8,
        touchAction: onDraw ? 'none' : 'auto',
        cursor: onDraw ? 'crosshair' : 'default',
      }}
    >
      <div ref={bars} style={{ display: 'flex', alignItems: 'flex-end', gap: 3, height: 72 }}>
        {Array.from({ length: LOUDNESS_BANDS }, (_, band) => {
          const [from, to] = [BAND_EDGES[band]!, BAND_EDGES[band + 1]!];
          const heard = Math.min(to, high) > Math.max(from, low) * 1.01;
          return (
            <div
              key={band}
              style={{
                flex: 1,
                height: '100%',
                transformOrigin: 'bottom',
                borderRadius: 3,
                background: heard ? palette.doing : palette.faint,
              }}
            />
          );
        })}
      </div>
    </div>
  );
}
