// A place that cannot be drawn, or whose piece of the app cannot be fetched, is said in its room: stage, pulse and the other
// places stay, and the light goes on.

import { Button, Column, Title, Words } from '../../ui/pieces';
import { WORDS } from './words';

export function Failure() {
  return (
    <Column padding={24} gap={12} alignItems="flex-start" role="alert">
      <Title render="h1">{WORDS.placeCouldNot}</Title>
      <Words>{WORDS.lightGoesAs}</Words>
      <Button kind="primary" onPress={() => window.location.reload()}>
        {WORDS.reload}
      </Button>
    </Column>
  );
}
