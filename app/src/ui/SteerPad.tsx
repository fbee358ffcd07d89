// A pad to steer a beam by hand: drag for coarse, arrows for fine; keys do the same.

import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import ArrowDown from 'lucide-react-native/icons/arrow-down';
import ArrowLeft from 'lucide-react-native/icons/arrow-left';
import ArrowRight from 'lucide-react-native/icons/arrow-right';
import ArrowUp from 'lucide-react-native/icons/arrow-up';
import { View } from '@tamagui/core';
import { clamp } from '@hovlix/core/units';
import { useDrag } from './drag';
import { usePalette } from './palette';
import { Button, Column, Figures, Row } from './pieces';
import { Segments } from './Segments';
import { STEER } from './words';

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
  const letGo = () => void (from.current = null);
  const hands = {
    onKeyDown: key,
    ...useDrag<HTMLDivElement>({
      down: (event) => void (from.current = { x: event.clientX, y: event.clientY, turn }),
      move,
      up: letGo,
      cancel: letGo,
    }),
  };
  const [px, py] = [50 + (turn.pan / (profile.panRange || 1)) * 100, 50 - (turn.tilt / (profile.tiltRange || 1)) * 100];
  return (
    <Column gap={10}>
      <View
        role="slider"
        tabIndex={0}
        aria-label={STEER.pad}
        aria-valuetext={STEER.at(turn.pan.toFixed(1), turn.tilt.toFixed(1))}
        aria-valuenow={Math.round(turn.pan)}
        aria-valuemin={-Math.round(profile.panRange / 2)}
        aria-valuemax={Math.round(profile.panRange / 2)}
        position="relative"
        height={132}
        borderRadius={14}
        borderWidth={1}
        borderColor="$line"
        backgroundColor="$sunken"
        cursor={'crosshair'}
        style={{ touchAction: 'none' }}
        {...hands}
      >
        <View position="absolute" left="50%" top={8} bottom={8} width={1} backgroundColor="$line" />
        <View position="absolute" top="50%" left={8} right={8} height={1} backgroundColor="$line" />
        <View
          position="absolute"
          left={`${px}%`}
          top={`${py}%`}
          width={28}
          height={28}
          margin={-14}
          borderRadius={14}
          backgroundColor="$doing"
          boxShadow={`0 0 0 8px ${palette.doing}33`}
        />
        <Figures position="absolute" left={12} bottom={8} color="$quiet">
          {STEER.shown(turn.pan.toFixed(1), turn.tilt.toFixed(1))}
        </Figures>
      </View>
      <Row gap={6} justifyContent="space-between" flexWrap="wrap">
        <Segments
          label={STEER.speed}
          value={speed}
          choices={[
            { value: 'coarse', name: STEER.coarse },
            { value: 'fine', name: STEER.fine },
          ]}
          onChoose={setSpeed}
        />
        <Row gap={2}>
          <Button label={STEER.left} kind="quiet" onPress={() => nudge(-1, 0)}>
            <ArrowLeft size={20} color={palette.text} aria-hidden />
          </Button>
          <Button label={STEER.up} kind="quiet" onPress={() => nudge(0, 1)}>
            <ArrowUp size={20} color={palette.text} aria-hidden />
          </Button>
          <Button label={STEER.down} kind="quiet" onPress={() => nudge(0, -1)}>
            <ArrowDown size={20} color={palette.text} aria-hidden />
          </Button>
          <Button label={STEER.right} kind="quiet" onPress={() => nudge(1, 0)}>
            <ArrowRight size={20} color={palette.text} aria-hidden />
          </Button>
        </Row>
      </Row>
    </Column>
  );
}
