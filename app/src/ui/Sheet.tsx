// What slides in for a piece of work: from below on a phone, at the right on a wide screen. The pulse bar stays in reach.

import { useEffect, useRef, type ReactNode } from 'react';
import { Text, useMedia } from '@tamagui/core';
import X from 'lucide-react-native/icons/x';
import { useSession } from '../host/session';
import { usePalette } from './palette';
import { Button, Column, Row } from './pieces';

type Props = {
  readonly title: string;
  /** On a phone it leaves half of the place in sight: what is changed in it is seen there. */
  readonly low?: boolean;
  readonly onClose: () => void;
  readonly children: ReactNode;
};

export function Sheet({ title, low = false, onClose, children }: Props) {
  const palette = usePalette();
  const { wide } = useMedia();
  // What is said in passing lies over the lower edge: nothing may be hidden behind it.
  const said = useSession((session) => session.said !== null);
  const sheet = useRef<HTMLElement>(null);
  useEffect(() => {
    const before = document.activeElement;
    sheet.current?.focus();
    const escape = (event: KeyboardEvent) => event.key === 'Escape' && onClose();
    window.addEventListener('keydown', escape);
    return () => {
      window.removeEventListener('keydown', escape);
      if (before instanceof HTMLElement) before.focus();
    };
    // Only as it opens and closes.
    // eslint-disable-next-line react-hooks/exhaustive-deps -- a new onClose each render must not take the focus again
  }, []);
  return (
    <Column
      ref={sheet as never}
      tabIndex={-1}
      role="dialog"
      aria-label={title}
      position="absolute"
      zIndex={15}
      backgroundColor="$raised"
      borderColor="$line"
      boxShadow="0 -12px 40px rgba(0,0,0,0.4)"
      outlineWidth={0}
      {...(wide
        ? { top: 0, bottom: 0, right: 0, width: 440, borderLeftWidth: 1 }
        : {
            left: 0,
            right: 0,
            bottom: 0,
            maxHeight: low ? '52%' : '96%',
            borderTopLeftRadius: 22,
            borderTopRightRadius: 22,
          })}
    >
      <Row justifyContent="space-between" paddingLeft={20} paddingRight={8} paddingTop={12} paddingBottom={4}>
        <Text render="h2" margin={0} fontFamily="$heading" fontWeight="650" fontSize={22} color="$text">
          {title}
        </Text>
        <Button label="Close" kind="quiet" onPress={onClose}>
          <X size={22} color={palette.text} aria-hidden />
        </Button>
      </Row>
      <div style={{ overflowY: 'auto', minHeight: 0, padding: `4px 20px ${said ? 104 : 24}px` }}>
        <Column gap={18}>{children}</Column>
      </div>
    </Column>
  );
}
