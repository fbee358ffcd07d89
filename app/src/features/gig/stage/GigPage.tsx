// A page behind Gig: its title, the way back, and what scrolls.

import type { ReactNode } from 'react';
import { Link } from 'expo-router';
import ChevronLeft from 'lucide-react-native/icons/chevron-left';
import { usePalette } from '../../../ui/palette';
import { Column, Row, Title } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { WORDS } from './words';

const BACK = { minWidth: 44, minHeight: 44, display: 'flex', alignItems: 'center', justifyContent: 'center' } as const;

type Props = { readonly title: string; readonly action?: ReactNode; readonly children: ReactNode };

export function GigPage({ title, action, children }: Props) {
  const palette = usePalette();
  return (
    <Column height="100%">
      <Row gap={4} paddingLeft={8} paddingRight={12} paddingTop={12} paddingBottom={8} justifyContent="space-between">
        <Row gap={4} flexShrink={1} minWidth={0}>
          <Link href="/gig" aria-label={WORDS.backToGig} style={BACK}>
            <ChevronLeft size={22} color={palette.text} aria-hidden />
          </Link>
          <Title render="h1" margin={0} fontSize={22} numberOfLines={1}>
            {title}
          </Title>
        </Row>
        {action}
      </Row>
      <div style={{ flex: 1, minHeight: 0 }}>
        <ScrollArea read>
          <Column paddingHorizontal={14} gap={12} maxWidth={760}>
            {children}
          </Column>
        </ScrollArea>
      </div>
    </Column>
  );
}
