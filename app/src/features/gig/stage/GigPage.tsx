// A page behind Gig: its title, the way back, and what scrolls.

import type { ReactNode } from 'react';
import { BackLink } from '../../../ui/links';
import { Column, Row, Title } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { WORDS } from './words';

type Props = { readonly title: string; readonly action?: ReactNode; readonly children: ReactNode };

export function GigPage({ title, action, children }: Props) {
  return (
    <Column height="100%">
      <Row gap={4} paddingLeft={8} paddingRight={12} paddingTop={12} paddingBottom={8} justifyContent="space-between">
        <Row gap={4} flexShrink={1} minWidth={0}>
          <BackLink href="/gig" label={WORDS.backToGig} />
          <Title render="h1" margin={0} fontSize={22} numberOfLines={1}>
            {title}
          </Title>
        </Row>
        {action}
      </Row>
      <Column flex={1} minHeight={0}>
        <ScrollArea read>
          <Column paddingHorizontal={14} gap={12} maxWidth={760}>
            {children}
          </Column>
        </ScrollArea>
      </Column>
    </Column>
  );
}
