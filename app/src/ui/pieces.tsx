// The few pieces everything is made of.

import { Children, type ReactNode } from 'react';
import ChevronsUpDown from 'lucide-react-native/icons/chevrons-up-down';
import { styled, Text, View } from '@tamagui/core';
import { atOnce, type Stamped } from './at-once';
import { usePalette } from './palette';

export const Column = styled(View, { flexDirection: 'column' });
export const Row = styled(View, { flexDirection: 'row', alignItems: 'center' });
/** Cells in the columns that `gridTemplateColumns` gives. Tamagui's types, made for phones too, do not know grids. */
export const Grid = styled(View, { display: 'grid' as 'flex' });

export const Words = styled(Text, {
  display: 'block',
  fontFamily: '$body',
  fontSize: 15,
  lineHeight: 20,
  color: '$text',
});
export const Quiet = styled(Text, {
  display: 'block',
  fontFamily: '$body',
  fontSize: 13,
  lineHeight: 18,
  color: '$quiet',
});
export const Figures = styled(Text, {
  fontFamily: '$mono',
  fontSize: 13,
  lineHeight: 18,
  color: '$quiet',
  fontVariant: ['tabular-nums'],
});
export const Title = styled(Text, {
  display: 'block',
  fontFamily: '$heading',
  fontWeight: '650',
  fontSize: 26,
  lineHeight: 30,
  color: '$text',
});

type Press = {
  readonly label?: string;
  readonly kind?: 'primary' | 'plain' | 'quiet';
  readonly onPress?: () => void;
  /** In place of `onPress`, for what counts to the moment: done as the finger comes down, and told when that was. */
  readonly onDown?: (event: Stamped) => void;
  readonly disabled?: boolean;
  readonly pressed?: boolean;
  readonly children: ReactNode;
  readonly testID?: string;
};

const Key = styled(View, {
  render: 'button',
  flexDirection: 'row',
  alignItems: 'center',
  justifyContent: 'center',
  gap: 8,
  minHeight: 44,
  minWidth: 44,
  paddingHorizontal: 18,
  borderRadius: 22,
  borderWidth: 0,
  cursor: 'pointer',
  userSelect: 'none',
  variants: {
    kind: {
      primary: { backgroundColor: '$doing', hoverStyle: { opacity: 0.92 }, pressStyle: { opacity: 0.8 } },
      plain: { backgroundColor: '$well', hoverStyle: { opacity: 0.92 }, pressStyle: { opacity: 0.75 } },
      quiet: { backgroundColor: 'transparent', paddingHorizontal: 10, pressStyle: { opacity: 0.6 } },
    },
    off: { true: { opacity: 0.4, cursor: 'default' } },
  } as const,
});

const isText = (child: ReactNode): boolean => typeof child === 'string' || typeof child === 'number';

/** A button. Without words in it, `label` names it for those who cannot see the icon. */
export function Button({ label, kind = 'plain', onPress, onDown, disabled = false, pressed, children, testID }: Press) {
  return (
    <Key
      {...(onDown && !disabled ? atOnce(onDown) : {})}
      kind={kind}
      off={disabled}
      aria-label={label}
      aria-pressed={pressed}
      aria-disabled={disabled || undefined}
      testID={testID}
      onPress={disabled ? undefined : onPress}
    >
      {Children.toArray(children).every(isText) ? <ButtonText kind={kind}>{children}</ButtonText> : children}
    </Key>
  );
}

export const ButtonText = styled(Text, {
  fontFamily: '$body',
  fontWeight: '600',
  fontSize: 15,
  lineHeight: 20,
  whiteSpace: 'nowrap',
  variants: {
    kind: { primary: { color: '$onDoing' }, plain: { color: '$text' }, quiet: { color: '$text' } },
  } as const,
});

type HeadProps = {
  readonly title: string;
  readonly under?: string | undefined;
  /** Where the line under the title opens something, and what. */
  readonly onUnder?: () => void;
  readonly underLabel?: string;
  /** Where the title opens something: what, for those who cannot see the arrows beside it. */
  readonly onTitle?: () => void;
  readonly titleHint?: string;
  readonly children?: ReactNode;
};

/** A place's heading with what can be done there. */
export function PlaceHead({ title, under, onUnder, underLabel, onTitle, titleHint, children }: HeadProps) {
  const palette = usePalette();
  return (
    <Row justifyContent="space-between" gap={8} paddingHorizontal={16} paddingTop={16} paddingBottom={12}>
      <Column flexShrink={1} minWidth={0}>
        <Title render="h1" margin={0} numberOfLines={1}>
          {onTitle ? (
            <View
              render="button"
              aria-description={titleHint}
              onPress={onTitle}
              alignItems="flex-start"
              minHeight={44}
              padding={0}
              borderWidth={0}
              backgroundColor="transparent"
              cursor="pointer"
              maxWidth="100%"
            >
              <Title numberOfLines={1} maxWidth="100%" fontSize={title.length > 10 ? 20 : 26}>
                {title}
              </Title>
              <Row gap={4} aria-hidden>
                <Quiet>{titleHint}</Quiet>
                <ChevronsUpDown size={14} color={palette.quiet} style={{ flexShrink: 0 }} />
              </Row>
            </View>
          ) : (
            title
          )}
        </Title>
        {under &&
          (onUnder ? (
            <View
              render="button"
              aria-label={underLabel}
              onPress={onUnder}
              flexDirection="row"
              alignItems="center"
              gap={4}
              minHeight={44}
              marginVertical={-8}
              padding={0}
              borderWidth={0}
              backgroundColor="transparent"
              cursor="pointer"
              maxWidth="100%"
            >
              <Quiet numberOfLines={1} color="$text" fontWeight="600">
                {under}
              </Quiet>
              <ChevronsUpDown size={14} color={palette.quiet} aria-hidden style={{ flexShrink: 0 }} />
            </View>
          ) : (
            <Quiet numberOfLines={1}>{under}</Quiet>
          ))}
      </Column>
      <Row gap={8}>{children}</Row>
    </Row>
  );
}
