// A pad to steer a beam by hand: drag for coarse, arrows for fine; keys do the same.

import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import ArrowDown from 'lucide-react-native/icons/arrow-down';
import ArrowLeft from 'lucide-react-native/icons/arrow-left';
import ArrowRight from 'lucide-react-native/icons/arrow-right';
import ArrowUp from 'lucide-react-native/icons/arrow-up';
import { clamp } from '@hovlix/core/units';
import { usePalette } from './palette';
import { Button, Column, Figures, Row } from './pieces';
import { Segments } from './Segments';

type Turn = { readonly pan: number; readonly tilt: number };
type Props = {
  readonly turn: Turn;
  readonly profile: { readonly panRange: number; readonly tiltRange: number };
  readonly onTurn: (turn: Turn) => void;
};

/** Degrees for a drag across the whole pad. */
const ACROSS = { coarse: 240, fine: 24 } as const;
const NUDGE = { coarse: 5, fine: 0.5 } as const;

export function SteerPad({ turn, profile, onTurn }: Props) {
  const palette = usePalette();
  const [speed, setSpeed] = useState<'coarse' | 'fine'>('coarse');
  const from = useRef<{ x: number; y: number; turn: Turn } | null>(null);
  const held = (pan: number, tilt: number): Turn => ({
    pan: clamp(pan, -profile.panRange / 2, profile.panRange / 2),
    tilt: clamp(tilt, -profile.tiltRange / 2, profile.tiltRange / 2),
  });
  const nudge = (pan: number, tilt: number) =>
    onTurn(held(turn.pan + pan * NUDGE[speed], turn.tilt + tilt * NUDGE[speed]));
  const key = (event: KeyboardEvent) => {
    const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    nudge(step[0]!, step[1]!);
  };
  const move = (event: PointerEvent<HTMLDivElement>) => {
    if (!from.current) return;
    const width = event.currentTarget.clientWidth;
    const degrees = ACROSS[speed] / width;
    const start = from.current;
    onTurn(
      held(start.turn.pan + (event.clientX - start.x) * degrees, start.turn.tilt - (event.clientY - start.y) * degrees),
    );
  };
  const [px, py] = [50 + (turn.pan / (profile.panRange || 1)) * 100, 50 - (turn.tilt / (profile.tiltRange || 1)) * 100];
  return (
    <Column gap={10}>
      <div
        role="slider"
        tabIndex={0}
        aria-label="Steer the beam"
        aria-valuetext={`pan ${turn.pan.toFixed(1)} degrees, tilt ${turn.tilt.toFixed(1)} degrees`}
        aria-valuenow={Math.round(turn.pan)}
        aria-valuemin={-Math.round(profile.panRange / 2)}
        aria-valuemax={Math.round(profile.panRange / 2)}
        onKeyDown={key}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          from.current = { x: event.clientX, y: event.clientY, turn };
        }}
        onPointerMove={move}
        onPointerUp={() => (from.current = null)}
        onPointerCancel={() => (from.current = null)}
        style={{
          position: 'relative',
          height: 132,
          borderRadius: 14,
          background: palette.sunken,
          border: `1px solid ${palette.line}`,
          touchAction: 'none',
          cursor: 'crosshair',
        }}
      >
        <div style={{ position: 'absolute', left: '50%', top: 8, bottom: 8, width: 1, background: palette.line }} />
        <div style={{ position: 'absolute', top: '50%', left: 8, right: 8, height: 1, background: palette.line }} />
        <div
          style={{
            position: 'absolute',
            left: `${px}%`,
            top: `${py}%`,
            width: 28,
            height: 28,
            margin: -14,
            borderRadius: 14,
            background: palette.doing,
            boxShadow: `0 0 0 8px ${palette.doing}33`,
          }}
        />
        <Figures position="absolute" left={12} bottom={8} color="$quiet">
          pan {turn.pan.toFixed(1)}° tilt {turn.tilt.toFixed(1)}°
        </Figures>
      </div>
      <Row gap={6} justifyContent="space-between" flexWrap="wrap">
        <Segments
          label="Speed of the pad"
          value={speed}
          choices={[
            { value: 'coarse', name: 'Coarse' },
            { value: 'fine', name: 'Fine' },
          ]}
          onChoose={setSpeed}
        />
        <Row gap={2}>
          <Button label="Pan left" kind="quiet" onPress={() => nudge(-1, 0)}>
            <ArrowLeft size={20} color={palette.text} aria-hidden />
          </Button>
          <Button label="Tilt up" kind="quiet" onPress={() => nudge(0, 1)}>
            <ArrowUp size={20} color={palette.text} aria-hidden />
          </Button>
          <Button label="Tilt down" kind="quiet" onPress={() => nudge(0, -1)}>
            <ArrowDown size={20} color={palette.text} aria-hidden />
          </Button>
          <Button label="Pan right" kind="quiet" onPress={() => nudge(1, 0)}>
            <ArrowRight size={20} color={palette.text} aria-hidden />
          </Button>
        </Row>
      </Row>
    </Column>
  );
}
