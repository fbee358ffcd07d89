// Things to do with the chosen bars: in one row on a phone, so that the bars stay in sight; as many as needed where it is wide.

import type { ReactNode } from 'react';
import { useMedia } from '@tamagui/core';
import { Row } from '../../ui/pieces';
import { ScrollArea } from '../../ui/ScrollArea';

export function Choices({ label, children }: { readonly label: string; readonly children: ReactNode }) {
  const { wide } = useMedia();
  if (wide)
    return (
      <Row gap={6} flexWrap="wrap" paddingHorizontal={16} role="group" aria-label={label}>
        {children}
      </Row>
    );
  return (
    <ScrollArea sideways>
      <Row gap={6} paddingHorizontal={16} width="max-content" role="group" aria-label={label}>
        {children}
      </Row>
    </ScrollArea>
  );
}
