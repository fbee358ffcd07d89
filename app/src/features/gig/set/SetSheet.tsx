import type { Show } from '@hovlix/core/show';
import { Sheet } from '../../../ui/Sheet';
import { SetList } from './SetList';
import { WORDS } from './words';

export function SetSheet({ show, onClose }: { readonly show: Show; readonly onClose: () => void }) {
  return (
    <Sheet title={WORDS.setList} onClose={onClose}>
      <SetList show={show} onGone={onClose} />
    </Sheet>
  );
}
