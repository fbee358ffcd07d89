// The head of a page behind Connect: the way back, and its title.

import type { ReactNode } from 'react';
import { BackLink } from '../../ui/links';
import { Column, Row, Title } from '../../ui/pieces';
import { WORDS } from './words';

type Props = { readonly title: string; readonly children?: ReactNode };

export function PageHead({ title, children }: Props) {
  return (
    <Row gap={4} paddingLeft={4} paddingRight={16} paddingVertical={8} alignItems="flex-start">
      <BackLink href="/connect" label={WORDS.backToConnect} />
      <Column flex={1} minWidth={0} paddingTop={7}>
        <Title render="h1" margin={0} fontSize={title.length > 14 ? 22 : 26}>
          {title}
        </Title>
        {children}
      </Column>
    </Row>
  );
}
