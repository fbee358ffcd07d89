// The order of the controls is the user's own: of this browser, not of the show.

import { create } from 'zustand';
import { z } from 'zod';
import type { FAMILIES } from '@hovlix/core/light';
import { kept } from '../../../host/kept';
import { Button, Quiet, Words } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { SortableList } from '../../../ui/SortableList';
import { FAMILY_NAMES } from './model';
import { WORDS } from './words';

export const TABS = [
  'level',
  'colour',
  'aim',
  'beam',
  'waves',
  'sound',
  'rate',
  'other',
  'faders',
] as const satisfies readonly ((typeof FAMILIES)[number] | 'waves' | 'sound' | 'faders')[];
export type Tab = (typeof TABS)[number];

export const TAB_NAMES: Readonly<Record<Tab, string>> = {
  ...FAMILY_NAMES,
  waves: 'Waves',
  sound: 'Sound',
  faders: 'Faders',
};

const ORDER = kept<readonly Tab[]>('hovlix-look-order-1', z.array(z.enum(TABS)), TABS);
/** A tab that is new since it was kept comes last. */
const whole = (order: readonly Tab[]): readonly Tab[] => [...new Set([...order, ...TABS])];

export const useTabOrder = create<{ readonly order: readonly Tab[]; readonly put: (order: readonly Tab[]) => void }>(
  (set) => ({
    order: whole(ORDER.read()),
    put: (order) => {
      set({ order });
      ORDER.keep(() => order);
    },
  }),
);

ORDER.heard((order) => useTabOrder.setState({ order: whole(order) }));

export function OrderSheet({ onClose }: { readonly onClose: () => void }) {
  const { order, put } = useTabOrder();
  return (
    <Sheet title={WORDS.orderControls} onClose={onClose}>
      <Quiet>{WORDS.whatYouReach}</Quiet>
      <SortableList
        items={order.map((id) => ({ id }))}
        nameOf={({ id }) => TAB_NAMES[id]}
        onOrder={(items) => put(items.map(({ id }) => id))}
      >
        {({ id }) => <Words>{TAB_NAMES[id]}</Words>}
      </SortableList>
      <Button onPress={() => put(TABS)}>{WORDS.resetOrder}</Button>
    </Sheet>
  );
}
