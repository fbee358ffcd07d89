// The head of a section on the lead sheet.

import { Text, View } from '@tamagui/core';
import { rehearsalMark, type Song } from '@hovlix/core/song';
import { useTints } from '../../ui/palette';
import { Words } from '../../ui/pieces';
import { HEAD_HEIGHT } from './lines';
import { WORDS } from './words';

/** What a section is called and what the light should do there; pressed, it chooses all of its bars. */
export function SectionHead({
  song,
  index,
  onChoose,
}: {
  readonly song: Song;
  readonly index: number;
  readonly onChoose: () => void;
}) {
  const section = song.sections[index]!;
  const tint = useTints()[section.tint]! as '$text';
  return (
    <View
      render="button"
      aria-label={WORDS.choose(section.name)}
      onPress={onChoose}
      height={HEAD_HEIGHT}
      width="100%"
      flexDirection="row"
      alignItems="center"
      gap={10}
      padding={0}
      borderWidth={0}
      backgroundColor="transparent"
      cursor="pointer"
      pressStyle={{ opacity: 0.75 }}
    >
      <View
        width={24}
        height={24}
        borderWidth={1.5}
        borderRadius={5}
        borderColor={tint}
        alignItems="center"
        justifyContent="center"
        flexShrink={0}
      >
        <Text fontFamily="$heading" fontWeight="650" fontSize={14} lineHeight={18} color={tint}>
          {rehearsalMark(index)}
        </Text>
      </View>
      <Text
        render="h2"
        margin={0}
        fontFamily="$heading"
        fontWeight="650"
        fontSize={17}
        lineHeight={22}
        numberOfLines={1}
        maxWidth="60%"
        flexShrink={section.note ? 0 : 1}
        color={tint}
      >
        {section.name}
      </Text>
      <Words fontStyle="italic" color="$quiet" numberOfLines={1} flexShrink={1} minWidth={0} textAlign="left">
        {section.note}
      </Words>
    </View>
  );
}
