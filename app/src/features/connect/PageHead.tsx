// The head of a page behind Connect: the way back, and its title.

import type { ReactNode } from 'react';
import { Link } from 'expo-router';
import ChevronLeft from 'lucide-react-native/icons/chevron-left';
import { usePalette } from '../../ui/palette';
import { Column, Row, Title } from '../../ui/pieces';
import { WORDS } from './words';

type Props = { readonly title: string; readonly children?: ReactNode };

export function PageHead({ title, children }: Props) {
  const palette = usePalette();
  return (
    <Row gap={4} paddingLeft={4} paddingRight={16} paddingVertical={8} alignItems="flex-start">
      <Link
        href="/connect"
        aria-label={WORDS.backToConnect}
        style={{ width: 44, height: 44, display: 'flex', alignItems: 'center', justifyContent: 'center' }}
      >
        <ChevronLeft size={24} color={palette.text} aria-hidden />
      </Link>
      <Column flex={1} minWidth={0} paddingTop={7}>
        <Title render="h1" margin={0} fontSize={title.length > 14 ? 22 : 26}>
          {title}
        </Title>
        {children}
      </Column>
    </Row>
  );
}
