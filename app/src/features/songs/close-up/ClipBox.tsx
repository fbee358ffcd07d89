// A clip of Close-up: its name on the colour of its look, with handles at its ends where it is the one that is chosen.

import { usePalette } from '../../../ui/palette';
import { HEIGHT, TOP } from './use-clip-gesture';

type Props = {
  readonly name: string;
  /** CSS of the colours of its look. */
  readonly colours: string;
  /** In pixels of the picture. */
  readonly left: number;
  readonly right: number;
  readonly chosen: boolean;
  readonly handles: boolean;
};

export function ClipBox({ name, colours, left, right, chosen, handles }: Props) {
  const palette = usePalette();
  return (
    <div
      data-clip-box={name}
      data-chosen={chosen || undefined}
      style={{
        position: 'absolute',
        left,
        width: Math.max(4, right - left - 1),
        top: TOP,
        height: HEIGHT - 2 * TOP,
        borderRadius: 8,
        boxSizing: 'border-box',
        border: `2px solid ${chosen ? palette.doing : 'transparent'}`,
        background: palette.well,
        color: palette.text,
        overflow: 'hidden',
        pointerEvents: 'none',
        zIndex: chosen ? 2 : 1,
      }}
    >
      <div style={{ position: 'absolute', left: 0, right: 0, top: 0, height: 8, background: colours }} />
      <div
        style={{
          // What begins before the picture has its name in sight.
          padding: `14px 14px 14px ${14 + Math.max(0, -left)}px`,
          font: '600 14px/18px Figtree',
          whiteSpace: 'nowrap',
          textOverflow: 'ellipsis',
          overflow: 'hidden',
        }}
      >
        {name}
      </div>
      {handles && <Handle at={{ left: 4 }} />}
      {handles && <Handle at={{ right: 4 }} />}
    </div>
  );
}

function Handle({ at }: { readonly at: { readonly left: number } | { readonly right: number } }) {
  const { doing } = usePalette();
  return (
    <div style={{ position: 'absolute', ...at, top: 20, bottom: 8, width: 4, borderRadius: 2, background: doing }} />
  );
}
