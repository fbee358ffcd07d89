// What slides in for a piece of work: from below on a phone, at the right on a wide screen. The pulse bar stays in reach.

import { useEffect, useLayoutEffect, useRef, type ReactNode } from 'react';
import { Text, useMedia, type TamaguiWebElement } from '@tamagui/core';
import X from 'lucide-react-native/icons/x';
import { useSession } from '../host/session';
import { closeOnBack, type OnBack } from './close-on-back';
import { usePalette } from './palette';
import { Button, Column, Row } from './pieces';
import { Scroller } from './ScrollArea';
import { WORDS } from './words';

type Props = {
  readonly title: string;
  /** On a phone it leaves half of the place in sight: what is changed in it is seen there. */
  readonly low?: boolean;
  readonly onClose: () => void;
  readonly children: ReactNode;
};

const STOPS = 'button, a[href], input, select, textarea, [tabindex="0"]';

/** Behind its last stop the Tab key comes to its first one, and the other way round. */
function goRound(sheet: HTMLElement, event: KeyboardEvent): void {
  // Of two that are open the later one lies on top.
  if ([...document.querySelectorAll('[role="dialog"]')].at(-1) !== sheet) return;
  const stops = [...sheet.querySelectorAll<HTMLElement>(STOPS)].filter(
    (stop) => stop.tabIndex >= 0 && !stop.hasAttribute('disabled') && stop.getClientRects().length > 0,
  );
  const [first, last] = [stops[0], stops.at(-1)];
  const at = document.activeElement;
  const leaves = at === sheet || at === (event.shiftKey ? first : last);
  // From outside it goes in, as from the pulse bar that stays in reach of fingers.
  if (!leaves && sheet.contains(at)) return;
  if (at === sheet && !event.shiftKey) return;
  event.preventDefault();
  (event.shiftKey ? last : first)?.focus();
}

export function Sheet({ title, low = false, onClose, children }: Props) {
  const palette = usePalette();
  const { wide } = useMedia();
  // What is said in passing lies over the lower edge: nothing may be hidden behind it.
  const said = useSession((session) => session.said !== null);
  const sheet = useRef<TamaguiWebElement>(null);
  // Opened and closed once, whatever it was given since.
  const close = useRef(onClose);
  useEffect(() => void (close.current = onClose));
  const back = useRef<OnBack>(null);
  const press = () => {
    back.current?.closing();
    close.current();
  };
  // Before it is painted: a key that is pressed as soon as it is seen is for it, however busy the page is.
  useLayoutEffect(() => {
    const before = document.activeElement;
    sheet.current?.focus();
    const keys = (event: KeyboardEvent) => {
      if (event.key === 'Escape') press();
      if (event.key === 'Tab' && sheet.current) goRound(sheet.current, event);
    };
    window.addEventListener('keydown', keys);
    const over = closeOnBack(() => {
      // As by a press beside it, a line is left: what was typed in it counts.
      const at = document.activeElement;
      if (at instanceof HTMLElement && sheet.current?.contains(at)) at.blur();
      close.current();
    });
    back.current = over;
    return () => {
      over.gone();
      window.removeEventListener('keydown', keys);
      if (before instanceof HTMLElement) before.focus();
    };
  }, []);
  return (
    <Column
      ref={sheet}
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
            maxHeight: low ? 'min(96%, max(52%, 340px))' : '96%',
            borderTopLeftRadius: 22,
            borderTopRightRadius: 22,
          })}
    >
      <Row justifyContent="space-between" paddingLeft={20} paddingRight={8} paddingTop={12} paddingBottom={4}>
        <Text render="h2" margin={0} fontFamily="$heading" fontWeight="650" fontSize={22} color="$text">
          {title}
        </Text>
        <Button label={WORDS.close} kind="quiet" onPress={press}>
          <X size={22} color={palette.text} aria-hidden />
        </Button>
      </Row>
      <Scroller paddingHorizontal={20} paddingTop={4} paddingBottom={said ? 104 : 24}>
        <Column gap={18}>{children}</Column>
      </Scroller>
    </Column>
  );
}
