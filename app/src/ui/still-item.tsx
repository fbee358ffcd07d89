// An item of a sortable list with its handle.

import type { CSSProperties, HTMLAttributes, ReactNode, Ref } from 'react';
import GripVertical from 'lucide-react-native/icons/grip-vertical';
import { usePalette } from './palette';
import { WORDS } from './words';

type Props = {
  readonly name: string;
  readonly opens: boolean;
  readonly children: ReactNode;
  /** What makes it draggable. */
  readonly drag?: {
    readonly ref: Ref<HTMLDivElement>;
    readonly handle: HTMLAttributes<HTMLButtonElement>;
    readonly style: CSSProperties;
    readonly lifted: boolean;
  };
};

export function StillItem({ name, opens, children, drag }: Props) {
  const palette = usePalette();
  const style: CSSProperties = {
    ...drag?.style,
    display: 'flex',
    alignItems: opens ? 'flex-start' : 'center',
    minHeight: 48,
    borderBottom: `1px solid ${palette.line}`,
    background: drag?.lifted ? palette.well : 'transparent',
    position: 'relative',
    zIndex: drag?.lifted ? 2 : 0,
  };
  return (
    <div ref={drag?.ref} style={style}>
      <button
        type="button"
        aria-label={WORDS.move(name)}
        {...drag?.handle}
        style={{
          width: 44,
          height: 44,
          flexShrink: 0,
          border: 0,
          background: 'transparent',
          cursor: 'grab',
          touchAction: 'none',
          ...(opens ? { marginTop: 4 } : {}),
          display: 'flex',
          alignItems: 'center',
          justifyContent: 'center',
        }}
      >
        <GripVertical size={18} color={palette.quiet} aria-hidden />
      </button>
      <div style={{ flex: 1, minWidth: 0 }}>{children}</div>
    </div>
  );
}
