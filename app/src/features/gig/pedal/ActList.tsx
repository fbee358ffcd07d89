// What one gesture does, fetched when it is first shown: a page that plays does not choose.

import { fetched } from '../../../ui/fetched';
import { Column, Words } from '../../../ui/pieces';
import type { ActListProps } from './listed-acts';

export const ActList = fetched(async () => (await import('./listed-acts')).ListedActs, {
  until: (props) => <Coming {...props} />,
});

/** As high as the list will be: what stands above it must not move under a finger. */
function Coming({ label, acts }: ActListProps) {
  return (
    <Column minHeight={acts.length === 0 ? 70 : 44 + acts.length * 50}>
      <Words fontWeight="600" lineHeight={44}>
        {label}
      </Words>
    </Column>
  );
}
