// The browser's own fader, in our colour: the pulse bar has one, so it stands apart from the other inputs.

import type { ChangeEvent, InputHTMLAttributes } from 'react';
import { styled, View } from '@tamagui/core';
import { usePalette } from './palette';

const RangeFrame = styled(
  View,
  {
    render: 'input',
    margin: 0,
    variants: { upright: { true: { width: 44, flex: 1 }, false: { width: '100%', height: 44 } } } as const,
    defaultVariants: { upright: false },
  },
  { isInput: true },
);

type RangeProps = Pick<InputHTMLAttributes<HTMLInputElement>, 'id' | 'aria-label'> & {
  readonly value: number;
  readonly most: number;
  /** Stands, with its most at the top. */
  readonly upright?: boolean;
  readonly onChange: (value: number) => void;
};

export function Range({ value, most, upright = false, onChange, ...props }: RangeProps) {
  const palette = usePalette();
  const input = {
    ...props,
    type: 'range',
    min: 0,
    max: most,
    value,
    onChange: (event: ChangeEvent<HTMLInputElement>) => onChange(Number(event.target.value)),
    style: {
      accentColor: palette.doing,
      ...(upright ? { writingMode: 'vertical-lr', direction: 'rtl' } : {}),
    },
  };
  return <RangeFrame upright={upright} {...(input as object)} />;
}
