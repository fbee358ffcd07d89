// A look or a chase as a card: its picture, its name, what it does, and the way to everything else.

import { Text, View } from '@tamagui/core';
import MoreVertical from 'lucide-react-native/icons/ellipsis-vertical';
import type { Chase, Look } from '@hovlix/core/light';
import { toggleLook } from '../../host/conduct/gestures';
import { useHovlix } from '../../host/hovlix';
import { useIsOn } from '../../host/conduct/use-is-on';
import { atOnceUnlessScrolling } from '../../ui/at-once';
import { LookPicture } from '../../ui/LookPicture';
import { usePalette, useTints } from '../../ui/palette';
import { Figures, Quiet, Row } from '../../ui/pieces';
import { useUnlit } from '../../ui/use-unlit';
import { plainWords } from './model';
import { WORDS } from './words';

type Props = {
  readonly play: Look | Chase;
  readonly roles: readonly { readonly id: string; readonly name: string }[];
  readonly onMore: () => void;
};

export function LookCard({ play, roles, onMore }: Props) {
  const app = useHovlix();
  const palette = usePalette();
  const tints = useTints();
  const on = useIsOn(play.id);
  const unlit = useUnlit(play.id);
  return (
    <View position="relative" minWidth={0}>
      <View
        render="button"
        aria-label={`${play.name}, ${on ? 'on' : 'off'}`}
        aria-pressed={on}
        aria-description={unlit}
        {...atOnceUnlessScrolling(() => toggleLook(app, play.id))}
        padding={0}
        borderRadius={14}
        overflow="hidden"
        borderWidth={2}
        borderColor={on ? '$doing' : 'transparent'}
        backgroundColor="$raised"
        cursor="pointer"
        alignItems="stretch"
        hoverStyle={{ backgroundColor: '$well' }}
        pressStyle={{ opacity: 0.8 }}
        minWidth={0}
        width="100%"
      >
        <LookPicture look={play.id} height={104} />
        {play.tint !== undefined && <View height={4} backgroundColor={tints[play.tint]!} aria-hidden />}
        <View padding={12} paddingRight={36} gap={2} alignItems="stretch">
          <Text
            fontFamily="$heading"
            fontWeight="650"
            fontSize={16}
            lineHeight={21}
            color="$text"
            textAlign="left"
            numberOfLines={1}
          >
            {play.name}
          </Text>
          <Row gap={8} alignItems="baseline" minWidth={0}>
            <Figures>{String(play.number).padStart(2, '0')}</Figures>
            <Quiet textAlign="left" numberOfLines={1} flexShrink={1}>
              {on ? 'on · ' : ''}
              {plainWords(play, roles)}
            </Quiet>
          </Row>
        </View>
      </View>
      <View
        render="button"
        aria-label={WORDS.moreAbout(play.name)}
        onPress={onMore}
        position="absolute"
        right={0}
        bottom={10}
        width={44}
        height={44}
        alignItems="center"
        justifyContent="center"
        borderWidth={0}
        backgroundColor="transparent"
        cursor="pointer"
      >
        <MoreVertical size={20} color={palette.quiet} aria-hidden />
      </View>
    </View>
  );
}
