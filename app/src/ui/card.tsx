// A card with a heading, and a state told by a word and a colour.

import type { ReactNode } from 'react';
import { Text, View } from '@tamagui/core';
import { Column, Figures, Quiet, Row, Words } from './pieces';

type CardProps = { readonly title: string; readonly children: ReactNode; readonly action?: ReactNode };

export function Card({ title, children, action }: CardProps) {
  return (
    <Column render="section" aria-label={title} backgroundColor="$raised" borderRadius={14} padding={16} gap={12}>
      <Row justifyContent="space-between" gap={8} minHeight={action ? 44 : 22}>
        <Text render="h2" margin={0} fontFamily="$heading" fontWeight="650" fontSize={16} lineHeight={22} color="$text">
          {title}
        </Text>
        {action}
      </Row>
      {children}
    </Column>
  );
}

export type Tone = '$live' | '$warn' | '$fault' | '$faint';

type StateProps = { readonly colour: Tone; readonly word: string; readonly children?: ReactNode };

export function State({ colour, word, children }: StateProps) {
  return (
    <Row gap={10} alignItems="flex-start" minWidth={0}>
      <View width={10} height={10} marginTop={5} borderRadius={5} backgroundColor={colour} flexShrink={0} />
      <Column flex={1} gap={2} minWidth={0}>
        <Words fontWeight="600" textAlign="left">
          {word}
        </Words>
        {children}
      </Column>
    </Row>
  );
}

export function Fact({ name, value, id }: { readonly name: string; readonly value: string; readonly id?: string }) {
  return (
    <Column>
      <Figures fontSize={22} lineHeight={26} fontWeight="600" color="$text" testID={id}>
        {value}
      </Figures>
      <Quiet fontSize={12}>{name}</Quiet>
    </Column>
  );
}
