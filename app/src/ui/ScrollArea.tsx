import type { ReactNode } from 'react';

/** A place's own scrolling; the page itself never moves. */
export function ScrollArea({
  children,
  sideways = false,
}: {
  readonly children: ReactNode;
  readonly sideways?: boolean;
}) {
  return (
    <div
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
