import type { ReactNode } from 'react';
import { styled, View } from '@tamagui/core';

/** A part that scrolls by itself, below whatever height it is given. What is in it stays as high as it is. */
export const Scroller = styled(View, { display: 'block', minHeight: 0, flexShrink: 1, overflowY: 'auto' });

/** A place's own scrolling; the page itself never moves. */
export function ScrollArea({
  children,
  sideways = false,
  read = false,
}: {
  readonly children: ReactNode;
  readonly sideways?: boolean;
  /** There may be nothing to press in it: the keyboard can scroll it all the same. */
  readonly read?: boolean;
}) {
  return (
    <div
      tabIndex={read ? 0 : undefined}
      style={{
        height: sideways ? undefined : '100%',
        overflowY: sideways ? 'hidden' : 'auto',
        overflowX: sideways ? 'scroll' : 'hidden',
        // A row leaves room for the ring around what has the focus. Its scroll bar lies in what is free below it.
        ...(sideways ? { padding: '5px 0', margin: `-5px 0 ${-5 - barHeight()}px` } : { paddingBottom: 24 }),
        boxSizing: 'border-box',
      }}
    >
      {children}
    </div>
  );
}

let bar: number | undefined;

/** How high scroll bars are, in pixels: none where they lie over what is scrolled, as on phones. */
function barHeight(): number {
  if (bar !== undefined) return bar;
  const box = window.document.createElement('div');
  box.style.cssText = 'position:absolute;width:50px;height:50px;visibility:hidden;overflow:scroll';
  window.document.body.append(box);
  bar = box.offsetHeight - box.clientHeight;
  box.remove();
  return bar;
}
