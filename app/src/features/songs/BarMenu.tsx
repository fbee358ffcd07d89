// What can be done with bars, where they were pressed long or with the right button.

import { useEffect, useRef } from 'react';
import { View, type TamaguiWebElement } from '@tamagui/core';
import { Words } from '../../ui/pieces';

export type MenuEntry = { readonly name: string; readonly onPress: () => void };

type Props = {
  readonly label: string;
  /** Where it was pressed, in pixels of the window. */
  readonly x: number;
  readonly y: number;
  readonly entries: readonly MenuEntry[];
  readonly onClose: () => void;
};

const WIDTH = 220;
const ROW = 44;

export function BarMenu({ label, x, y, entries, onClose }: Props) {
  const menu = useRef<TamaguiWebElement<HTMLDivElement>>(null);
  useEffect(() => {
    const before = window.document.activeElement;
    menu.current?.querySelector('button')?.focus();
    const away = (event: Event) => !menu.current?.contains(event.target as Node) && onClose();
    window.addEventListener('pointerdown', away, true);
    window.addEventListener('blur', onClose);
    return () => {
      window.removeEventListener('pointerdown', away, true);
      window.removeEventListener('blur', onClose);
      if (before instanceof HTMLElement) before.focus();
    };
    // oxlint-disable-next-line react/exhaustive-deps -- once as it opens: a new onClose must not move the focus
  }, []);
  const walk = (event: React.KeyboardEvent) => {
    event.stopPropagation();
    const buttons = [...(menu.current?.querySelectorAll('button') ?? [])];
    const at = buttons.indexOf(window.document.activeElement as HTMLButtonElement);
    if (event.key === 'Escape' || event.key === 'Tab') onClose();
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    buttons[(at + step + buttons.length) % buttons.length]?.focus();
  };
  const height = entries.length * ROW + 16;
  return (
    <View
      ref={menu}
      role="menu"
      aria-label={label}
      {...{ onKeyDown: walk }}
      position={'fixed'}
      left={Math.max(8, Math.min(x, window.innerWidth - WIDTH - 8))}
      top={Math.max(8, Math.min(y, window.innerHeight - height - 8))}
      width={WIDTH}
      paddingVertical={8}
      borderRadius={14}
      borderWidth={1}
      borderColor="$line"
      backgroundColor="$raised"
      boxShadow="0 12px 40px rgba(0,0,0,.5)"
      zIndex={30}
    >
      {entries.map(({ name, onPress }) => (
        <View
          key={name}
          render="button"
          role="menuitem"
          onPress={() => {
            onClose();
            onPress();
          }}
          height={ROW}
          paddingHorizontal={18}
          borderWidth={0}
          backgroundColor="transparent"
          alignItems="flex-start"
          justifyContent="center"
          cursor="pointer"
          hoverStyle={{ backgroundColor: '$well' }}
          pressStyle={{ backgroundColor: '$well' }}
        >
          <Words fontWeight="600">{name}</Words>
        </View>
      ))}
    </View>
  );
}
