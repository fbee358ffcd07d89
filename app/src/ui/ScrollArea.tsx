import type { ReactNode } from 'react';

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
        overflowX: sideways ? 'auto' : 'hidden',
        paddingBottom: sideways ? 0 : 24,
        boxSizing: 'border-box',
      }}
    >
      {children}
    </div>
  );
}
