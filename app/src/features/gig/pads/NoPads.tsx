// In place of pads where there are none: what comes first, and the way there.

import { useRouter } from 'expo-router';
import { usePlays } from '../../../host/hovlix';
import { Button, Column, Words } from '../../../ui/pieces';
import { WORDS } from './words';

type Props = {
  /** What fills the bank where there are looks to put in it. */
  readonly words: string;
  readonly way: string;
  readonly onWay: () => void;
  /** Nothing else asks to be pressed. */
  readonly alone?: boolean;
};

export function NoPads({ words, way, onWay, alone = false }: Props) {
  const router = useRouter();
  const noLook = usePlays().length === 0;
  return (
    <Column paddingHorizontal={16} paddingVertical={8} gap={12} alignItems="flex-start">
      <Words>{noLook ? WORDS.noLookYet : words}</Words>
      <Button kind={alone ? 'primary' : 'plain'} onPress={noLook ? () => router.push('/looks') : onWay}>
        {noLook ? WORDS.toTheLooks : way}
      </Button>
    </Column>
  );
}
