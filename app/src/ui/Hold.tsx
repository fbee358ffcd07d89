// A button that must be held: for what an audience would see, and nobody may do by a slip of the thumb.

import { useEffect, useRef, useState, type KeyboardEvent, type MouseEvent } from 'react';
import { View } from '@tamagui/core';
import { ButtonText } from './pieces';
import { WORDS } from './words';

const HOLD_MS = 700;

type Props = {
  readonly children: string;
  readonly onHeld: () => void;
  /** Narrow, its words below one another. */
  readonly tall?: boolean;
};

export function Hold({ children, onHeld, tall = false }: Props) {
  const [holding, setHolding] = useState(false);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const begin = () => {
    if (timer.current !== undefined) return;
    setHolding(true);
    timer.current = setTimeout(() => {
      end();
      onHeld();
    }, HOLD_MS);
  };
  const end = () => {
    clearTimeout(timer.current);
    timer.current = undefined;
    setHolding(false);
  };
  useEffect(() => () => clearTimeout(timer.current), []);
  const isKey = (event: { key: string }) => event.key === 'Enter' || event.key === ' ';
  return (
    <View
      render="button"
      aria-description={WORDS.pressAndHold}
      position="relative"
      overflow="hidden"
      minHeight={44}
      paddingVertical={tall ? 6 : 0}
      paddingHorizontal={tall ? 6 : 18}
      borderRadius={22}
      borderWidth={1}
      borderColor="$warn"
      backgroundColor="$well"
      alignItems="center"
      justifyContent="center"
      cursor="pointer"
      userSelect="none"
      {...{
        onPointerDown: begin,
        onPointerUp: end,
        onPointerLeave: end,
        onPointerCancel: end,
        onContextMenu: (event: MouseEvent) => event.preventDefault(),
        onKeyDown: (event: KeyboardEvent) => isKey(event) && !event.repeat && begin(),
        onKeyUp: (event: KeyboardEvent) => isKey(event) && end(),
        onBlur: end,
      }}
    >
      <div
        aria-hidden
        style={{
          position: 'absolute',
          inset: 0,
          background: 'rgba(242,184,75,0.35)',
          transformOrigin: 'left',
          transform: `scaleX(${holding ? 1 : 0})`,
          transition: holding ? `transform ${HOLD_MS}ms linear` : 'none',
        }}
      />
      <ButtonText
        kind="plain"
        {...(tall ? { whiteSpace: 'normal', textAlign: 'center', fontSize: 13, lineHeight: 16 } : {})}
      >
        {children}
      </ButtonText>
    </View>
  );
}
