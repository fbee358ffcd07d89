// The order of the controls is the user's own: of this browser, not of the show.

import { create } from 'zustand';
import { z } from 'zod';
import type { FAMILIES } from '@hovlix/core/light';
import { Button, Quiet, Words } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { SortableList } from '../../../ui/SortableList';
import { FAMILY_NAMES } from './model';
import { WORDS } from './words';

export const TABS = ['level', 'colour', 'aim', 'beam', 'waves', 'sound', 'rate', 'other', 'faders'] as const satisfies readonly ((typeof FAMILIES)[number] | 'waves' | 'sound' | 'faders')[]; // prettier-ignore
export type Tab = (typeof TABS)[number];

export const TAB_NAMES: Readonly<Record<Tab, string>> = {
  ...FAMILY_NAMES,
  waves: 'Waves',
  sound: 'Sound',
  faders: 'Faders',
};

const KEY = 'hovlix-look-order-1';
const Kept = z.array(z.enum(TABS));

export const useTabOrder = create<{ readonly order: readonly Tab[]; readonly put: (order: readonly Tab[]) => void }>((set) => ({
  order: keptOrder(),
  put: (order) => {
    set({ order });
    window.localStorage.setItem(KEY, JSON.stringify(order));
  },
})); // prettier-ignore

function keptOrder(): readonly Tab[] {
  try {
    const read = Kept.parse(JSON.parse(window.localStorage.getItem(KEY) ?? ''));
    // A tab that is new since then comes last.
    return [...new Set([...read, ...TABS])];
  } catch {
    // Nothing kept yet, or not readable: nothing is lost but an order.
    return TABS;
  }
}

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
