// A link as a picture that a phone's camera reads.

import { useMemo } from 'react';
import QRCode from 'qrcode';
import Svg, { Path, Rect } from 'react-native-svg';
import { Column } from '../../ui/pieces';
import { WORDS } from './words';

/** Always ink on white with its quiet zone of four modules (ISO/IEC 18004), so that every camera reads it. */
export function Qr({ text }: { readonly text: string }) {
  const { size, path } = useMemo(() => {
    const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' });
    let drawn = '';
    for (let row = 0; row < modules.size; row++)
      for (let column = 0; column < modules.size; column++)
        if (modules.get(row, column)) drawn += `M${column + 4} ${row + 4}h1v1h-1z`;
    return { size: modules.size + 8, path: drawn };
  }, [text]);
  return (
    <Column borderRadius={12} overflow="hidden" role="img" aria-label={WORDS.qrCodeJoin} testID="qr">
      <Svg width={140} height={140} viewBox={`0 0 ${size} ${size}`}>
        <Rect width={size} height={size} fill="#FFFFFF" />
        <Path d={path} fill="#15121B" />
      </Svg>
    </Column>
  );
}
