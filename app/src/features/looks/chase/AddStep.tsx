// A step more: one of the looks, or light of its own that begins as a copy of the step before.

import { View } from '@tamagui/core';
import type { Look } from '@hovlix/core/light';
import type { Show } from '@hovlix/core/show';
import { LookPicture } from '../../../ui/LookPicture';
import { Button, Quiet, Words, Grid } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { WORDS } from './words';

type Props = {
  readonly show: Show;
  /** How many steps the chase has, and how many of them come before what is added. */
  readonly count: number;
  readonly before: number;
  readonly onAdd: (step: Look['id'] | 'copy') => void;
  readonly onClose: () => void;
};

export function AddStep({ show, count, before, onAdd, onClose }: Props) {
  const where = before === count ? 'at the end' : before === 0 ? 'at the beginning' : WORDS.afterStep(before);
  return (
    <Sheet title={WORDS.addSteps} onClose={onClose}>
      <Button onPress={() => onAdd('copy')}>
        {WORDS.lightItsOwn(before === count ? 'the last step' : `step ${Math.max(1, before)}`)}
      </Button>
      <Quiet>{WORDS.orTapLooks(where)}</Quiet>
      <Grid gridTemplateColumns="repeat(auto-fill, minmax(150px, 1fr))" gap={10}>
        {show.looks.map((look) => (
          <View
            key={look.id}
            render="button"
            aria-label={WORDS.addAsStep(look.name)}
            onPress={() => onAdd(look.id)}
            padding={0}
            borderRadius={14}
            overflow="hidden"
            borderWidth={0}
            backgroundColor="$well"
            cursor="pointer"
            alignItems="stretch"
            pressStyle={{ opacity: 0.7 }}
          >
            <LookPicture look={look.id} height={84} />
            <Words padding={10} numberOfLines={1} textAlign="left" fontWeight="600">
              {look.name}
            </Words>
          </View>
        ))}
      </Grid>
    </Sheet>
  );
}
