// A fader that lies: drag for coarse, with Shift for fine; arrows do the same; the figure beside it can be typed.

import { useId, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { View } from '@tamagui/core';
import { clamp } from '@hovlix/core/units';
import { useDrag } from './drag';
import { Label, LineInput } from './inputs';
import { Column, Quiet, Row } from './pieces';
import { useTypedLine } from './typed-line';
import { WORDS } from './words';

type Props = {
  readonly label: string;
  readonly value: number;
  readonly low: number;
  readonly high: number;
  /** What can be typed beyond the end of the track, which reaches there while the value is beyond it. */
  readonly most?: number;
  /** One press of an arrow; with Shift a tenth of it. */
  readonly step: number;
  readonly unit: string;
  readonly digits?: number;
  /** Goes a tenth of the way, as with Shift. */
  readonly fine?: boolean;
  readonly onChange: (value: number) => void;
  /** Paints the track, for colours. */
  readonly track?: string;
};

const FINE = 0.1;

export function Slider({ digits = 0, fine = false, ...props }: Props) {
  const { label, value, low, step, unit, onChange, track } = props;
  const most = props.most ?? props.high;
  const high = value > props.high ? most : props.high;
  const id = useId();
  const line = useTypedLine(value.toFixed(digits));
  const from = useRef<{ x: number; value: number } | null>(null);
  const held = (wanted: number) => {
    const grain = step * FINE;
    return clamp(Math.round(wanted / grain) * grain, low, high);
  };
  const share = clamp((value - low) / (high - low || 1), 0, 1);
  const key = (event: KeyboardEvent) => {
    const way = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
    const end = { Home: low, End: high }[event.key];
    if (way === undefined && end === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    onChange(end ?? held(value + way! * step * (fine || event.shiftKey ? FINE : 1)));
  };
  const drag = (event: PointerEvent<HTMLDivElement>) => {
    if (!from.current) return;
    const across = (high - low) / event.currentTarget.clientWidth;
    const moved = (event.clientX - from.current.x) * across * (fine || event.shiftKey ? FINE : 1);
    from.current = { x: event.clientX, value: clamp(from.current.value + moved, low, high) };
    onChange(held(from.current.value));
  };
  const read = (text: string) => {
    const number = Number(text.replace(',', '.').replace('−', '-').replace(unit, '').trim());
    const given = text.trim() !== '' && Number.isFinite(number) ? clamp(number, low, most) : undefined;
    if (given !== undefined) onChange(given);
    line.hold((given ?? value).toFixed(digits));
  };
  const letGo = () => void (from.current = null);
  const hands = {
    onKeyDown: key,
    ...useDrag<HTMLDivElement>({
      down: (event) => {
        const box = event.currentTarget.getBoundingClientRect();
        const stays = fine || event.shiftKey;
        const there = stays ? value : low + ((event.clientX - box.left) / box.width) * (high - low);
        from.current = { x: event.clientX, value: clamp(there, low, high) };
        if (!stays) onChange(held(there));
      },
      move: drag,
      up: letGo,
      cancel: letGo,
    }),
  };
  return (
    <Column gap={4}>
      <Label of={id}>{label}</Label>
      <Row gap={10}>
        <View
          role="slider"
          tabIndex={0}
          aria-label={label}
          aria-valuemin={low}
          aria-valuemax={high}
          aria-valuenow={Math.round(value * 1000) / 1000}
          aria-valuetext={`${value.toFixed(digits)} ${unit}`}
          position="relative"
          flex={1}
          height={44}
          minWidth={0}
          cursor="pointer"
          style={{ touchAction: 'pan-y' }}
          {...hands}
        >
          <View
            position="absolute"
            left={0}
            right={0}
            top={14}
            height={16}
            borderRadius={8}
            overflow="hidden"
            backgroundColor="$well"
            style={track ? { background: track } : undefined}
          >
            {!track && <View width={`${share * 100}%`} height="100%" backgroundColor="$quiet" opacity={0.55} />}
          </View>
          <View
            position="absolute"
            left={`calc(${share} * (100% - 28px))`}
            top={8}
            width={28}
            height={28}
            borderRadius={14}
            borderWidth={3}
            borderColor="$ground"
            backgroundColor="$text"
            boxSizing="border-box"
          />
        </View>
        <LineInput
          id={id}
          small
          figures
          aria-label={WORDS.typed(label)}
          value={line.text}
          inputMode="decimal"
          onChange={(event) => line.type(event.target.value)}
          onFocus={(event) => {
            line.hold();
            event.target.select();
          }}
          onBlur={() => {
            if (line.typed) read(line.text);
            line.letGo();
          }}
          onEnter={(text) => line.typed && read(text)}
        />
        <Quiet width={26}>{unit}</Quiet>
      </Row>
    </Column>
  );
}
