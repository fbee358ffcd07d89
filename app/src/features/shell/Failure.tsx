// A place that cannot be drawn, or whose piece of the app cannot be fetched, is said in its room: stage, pulse and the other
// places stay, and the light goes on.

import { Button, Column, Title, Words } from '../../ui/pieces';

export function Failure() {
  return (
    <Column padding={24} gap={12} alignItems="flex-start" role="alert">
      <Title render="h1">This place could not be opened</Title>
      <Words>The light goes on as it is, and nothing is lost. Reload the page, or go to another place.</Words>
      <Button kind="primary" onPress={() => window.location.reload()}>
        Reload
      </Button>
    </Column>
  );
}
