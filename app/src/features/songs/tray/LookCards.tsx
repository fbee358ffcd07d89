// Looks to lay on bars, as pictures of their light.

import { View } from '@tamagui/core';
import type { Chase, Look } from '@hovlix/core/light';
import type { Clip } from '@hovlix/core/song';
import type { Id } from '@hovlix/core/units';
import { Words } from '../../../ui/pieces';
import { LookPicture } from '../../../ui/LookPicture';
import { WORDS } from './words';

export function LookCards({
  looks,
  chosen,
  onLay,
}: {
  readonly looks: readonly (Look | Chase)[];
  readonly chosen: Clip | undefined;
  readonly onLay: (look: Id<'Look'> | null) => void;
}) {
  return (
    <>
      {looks.map((look) => (
        <Card key={look.id} name={look.name} on={chosen?.look === look.id} onPress={() => onLay(look.id)}>
          <LookPicture look={look.id} height={62} />
        </Card>
      ))}
      <Card name={WORDS.dark} on={chosen?.look === null} onPress={() => onLay(null)}>
        <View height={62} backgroundColor="#000" />
      </Card>
    </>
  );
}

function Card({
  name,
  on,
  onPress,
  children,
}: {
  readonly name: string;
  readonly on: boolean;
  readonly onPress: () => void;
  readonly children: React.ReactNode;
}) {
  return (
    <View
      render="button"
      aria-label={WORDS.lay(name)}
      aria-pressed={on}
      onPress={onPress}
      padding={0}
      borderRadius={12}
      overflow="hidden"
      borderWidth={2}
      borderColor={on ? '$doing' : '$line'}
      backgroundColor="$sunken"
      cursor="pointer"
      pressStyle={{ opacity: 0.75 }}
      minWidth={0}
    >
      {children}
      <Words
        fontSize={13}
        fontWeight="600"
        paddingHorizontal={8}
        paddingVertical={7}
        numberOfLines={1}
        textAlign="left"
        width="100%"
      >
        {name}
      </Words>
    </View>
  );
}
