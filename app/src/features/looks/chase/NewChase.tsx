// A new chase: of the looks that are on, or of none yet.

import { router } from 'expo-router';
import { Chase } from '@hovlix/core/light';
import { nextNumber, type Show } from '@hovlix/core/show';
import { freshId } from '../../../host/fresh-id';
import { useHovlix } from '../../../host/hovlix';
import { Button } from '../../../ui/pieces';
import { WORDS } from './words';

export function NewChase({ show }: { readonly show: Show }) {
  const app = useHovlix();
  const make = () => {
    const number = nextNumber(show);
    const chase = Chase.parse({
      id: freshId(),
      number,
      name: WORDS.chase(number),
      fadeIn: 0,
      fadeOut: 1,
      pace: 'beats',
      steps: [],
    });
    app.document.make({ type: 'store-chase', chase });
    router.push(`/looks/chase/${chase.id}`);
  };
  return (
    <Button label={WORDS.newChase} onPress={make}>
      {WORDS.chaseAlone}
    </Button>
  );
}
